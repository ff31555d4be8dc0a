const NAME = 'logistra-member';

/** Says in a page whose it is: a browser may go on in another programme while it stays open. */
export const PageOf = ({ member }: { member: string }) => <meta name={NAME} content={member} />;

/** The header under which what this page sends is for the one whose page it is, and for nobody else. */
export function ofThisPage(): Record<string, string> {
  const member = document.querySelector(`meta[name=${NAME}]`)?.getAttribute('content');
  return member ? { 'x-member': member } : {};
}
