/** A message to one address. Its id makes sending it twice the same as once. */
export interface OutgoingMessage {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
}

/** What takes messages to people: e-mail, text messages. */
export interface MessageGateway {
  /** Hands a message over. @throws when the gateway cannot take it now: it is tried again */
  send(message: OutgoingMessage): Promise<void>;
}

/** Takes every message and delivers none: what was handed over is read in the outbox on the Devices page. */
export class SimulatedGateway implements MessageGateway {
  async send(message: OutgoingMessage): Promise<void> {
    if (!message.to) throw new Error(`Message ${message.id} has no address.`);
  }
}
