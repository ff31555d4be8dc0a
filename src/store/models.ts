import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize';
import type {
  AccessLinkRow,
  ApiTokenRow,
  AttendanceRow,
  AvoidanceMeaningRow,
  AwayRow,
  CalendarFeedRow,
  ChangeRow,
  ClosureCalendarRow,
  ClosureRow,
  CourseGroupRow,
  CourseRow,
  DeviceReadingRow,
  DishRow,
  EnrolmentRow,
  HouseholdRow,
  IdempotentReplyRow,
  IssueRow,
  JobRow,
  KeepingLimitRow,
  KitExclusionRow,
  KitFateRow,
  KitRow,
  KitSheetRow,
  KnownDeviceRow,
  MemberRow,
  MessageRow,
  NeedLookRow,
  OwnFoodRow,
  PackEventRow,
  PlaceRow,
  PlanChangeRow,
  PrintOutRow,
  ProductLabelRow,
  ProductRow,
  ProgrammeRow,
  RecipeRow,
  RecipeVersionRow,
  RecoveryCodeRow,
  SecurityEventRow,
  SessionJobRow,
  SessionRow,
  SheetNoteRow,
  SignInRow,
  SittingRow,
  StageMarkRow,
  TravelRow,
  WeighingRow,
} from './rows';

export type Table<Row extends object> = ModelStatic<Model<Row, Row>>;

/** The tables, each a Sequelize model over plain rows (see rows.ts). */
export interface Models {
  readonly programme: Table<ProgrammeRow>;
  readonly member: Table<MemberRow>;
  readonly apiToken: Table<ApiTokenRow>;
  readonly recoveryCode: Table<RecoveryCodeRow>;
  readonly knownDevice: Table<KnownDeviceRow>;
  readonly securityEvent: Table<SecurityEventRow>;
  readonly course: Table<CourseRow>;
  readonly courseGroup: Table<CourseGroupRow>;
  readonly session: Table<SessionRow>;
  readonly sitting: Table<SittingRow>;
  readonly recipe: Table<RecipeRow>;
  readonly recipeVersion: Table<RecipeVersionRow>;
  readonly ownFood: Table<OwnFoodRow>;
  readonly weighing: Table<WeighingRow>;
  readonly product: Table<ProductRow>;
  readonly keepingLimit: Table<KeepingLimitRow>;
  readonly dish: Table<DishRow>;
  readonly enrolment: Table<EnrolmentRow>;
  readonly away: Table<AwayRow>;
  readonly issue: Table<IssueRow>;
  readonly attendance: Table<AttendanceRow>;
  readonly sheetNote: Table<SheetNoteRow>;
  readonly avoidanceMeaning: Table<AvoidanceMeaningRow>;
  readonly productLabel: Table<ProductLabelRow>;
  readonly kitExclusion: Table<KitExclusionRow>;
  readonly kit: Table<KitRow>;
  readonly kitFate: Table<KitFateRow>;
  readonly kitSheet: Table<KitSheetRow>;
  readonly packEvent: Table<PackEventRow>;
  readonly stageMark: Table<StageMarkRow>;
  readonly change: Table<ChangeRow>;
  readonly signIn: Table<SignInRow>;
  readonly accessLink: Table<AccessLinkRow>;
  readonly household: Table<HouseholdRow>;
  readonly needLook: Table<NeedLookRow>;
  readonly message: Table<MessageRow>;
  readonly job: Table<JobRow>;
  readonly printOut: Table<PrintOutRow>;
  readonly deviceReading: Table<DeviceReadingRow>;
  readonly idempotentReply: Table<IdempotentReplyRow>;
  readonly place: Table<PlaceRow>;
  readonly travel: Table<TravelRow>;
  readonly closureCalendar: Table<ClosureCalendarRow>;
  readonly closure: Table<ClosureRow>;
  readonly sessionJob: Table<SessionJobRow>;
  readonly planChange: Table<PlanChangeRow>;
  readonly calendarFeed: Table<CalendarFeedRow>;
}

const id = { type: DataTypes.CHAR(36), primaryKey: true };
const reference = DataTypes.CHAR(36);
const text = DataTypes.STRING(255);
const long = DataTypes.TEXT('long');
const whole = DataTypes.INTEGER;
const moment = DataTypes.DATE(3);

/** Defines every model; the columns themselves are made by the migrations. */
export function defineModels(sequelize: Sequelize): Models {
  const table = <Row extends object>(name: string, columns: Record<keyof Row, unknown>): Table<Row> =>
    sequelize.define<Model<Row, Row>>(name, columns as ModelAttributes<Model<Row, Row>, Row>);
  return {
    programme: table<ProgrammeRow>('programme', {
      id,
      name: text,
      measureSystem: text,
      safetyProfile: text,
      timeZone: text,
      retentionMonths: whole,
      workHours: long,
      reserveCosts: long,
      columnWords: long,
      containers: long,
      secondStep: whole,
      version: whole,
    }),
    member: table<MemberRow>('member', {
      id,
      programmeId: reference,
      email: text,
      name: text,
      role: text,
      passwordHash: text,
      status: text,
      totp: long,
      totpStep: DataTypes.BIGINT,
      version: whole,
    }),
    recoveryCode: table<RecoveryCodeRow>('recovery_code', { id, memberId: reference, codeHash: text, usedAt: moment }),
    knownDevice: table<KnownDeviceRow>('known_device', {
      id,
      memberId: reference,
      tokenHash: text,
      createdAt: moment,
      seenAt: moment,
    }),
    securityEvent: table<SecurityEventRow>('security_event', {
      id,
      programmeId: reference,
      at: moment,
      kind: text,
      actorId: reference,
      ip: text,
      detail: text,
    }),
    apiToken: table<ApiTokenRow>('api_token', {
      id,
      programmeId: reference,
      name: text,
      role: text,
      tokenHash: text,
      createdAt: moment,
      expiresAt: moment,
      revokedAt: moment,
      createdBy: reference,
    }),
    course: table<CourseRow>('course', {
      id,
      programmeId: reference,
      title: text,
      audience: text,
      seasonFrom: DataTypes.DATEONLY,
      seasonTo: DataTypes.DATEONLY,
      cadence: long,
      onClosure: text,
      capacity: whole,
      budgetCents: whole,
      waitlistRule: text,
      instructorId: reference,
      rollClosesDays: whole,
      uses: long,
      jobs: long,
      kitRules: long,
      modePlaces: long,
      notes: long,
      version: whole,
    }),
    courseGroup: table<CourseGroupRow>('course_group', {
      id,
      courseId: reference,
      name: text,
      position: whole,
      daysAfter: whole,
      startsAt: text,
      place: text,
      placeId: reference,
      instructorId: reference,
      ended: whole,
      version: whole,
    }),
    sitting: table<SittingRow>('sitting', {
      sessionId: { type: DataTypes.CHAR(36), primaryKey: true },
      groupId: { type: DataTypes.CHAR(36), primaryKey: true },
      date: DataTypes.DATEONLY,
      startsAt: text,
      place: text,
      placeId: reference,
      instructorId: reference,
      status: text,
    }),
    session: table<SessionRow>('session', {
      id,
      courseId: reference,
      number: whole,
      title: text,
      date: DataTypes.DATEONLY,
      startsAt: text,
      minutes: whole,
      place: text,
      placeId: reference,
      instructorId: reference,
      mode: text,
      status: text,
      sequence: whole,
      cookBy: DataTypes.DATEONLY,
      because: text,
      jobs: long,
      extras: long,
      version: whole,
    }),
    recipe: table<RecipeRow>('recipe', {
      id,
      programmeId: reference,
      title: text,
      body: long,
      version: whole,
      parentId: reference,
      parentVersion: whole,
    }),
    recipeVersion: table<RecipeVersionRow>('recipe_version', {
      recipeId: { type: DataTypes.CHAR(36), primaryKey: true },
      version: { type: whole, primaryKey: true },
      title: text,
      body: long,
      at: moment,
      actorId: reference,
    }),
    ownFood: table<OwnFoodRow>('own_food', { id, programmeId: reference, name: text, body: long, version: whole }),
    weighing: table<WeighingRow>('weighing', {
      id,
      programmeId: reference,
      ingredient: text,
      preparation: text,
      measure: text,
      grams: text,
      at: moment,
      actorId: reference,
    }),
    product: table<ProductRow>('product', {
      id,
      programmeId: reference,
      ingredient: text,
      name: text,
      packGrams: text,
      price: whole,
      allergens: long,
      saltMg: whole,
      energyKj: whole,
      readAt: moment,
      readBy: reference,
      inKits: whole,
      version: whole,
    }),
    keepingLimit: table<KeepingLimitRow>('keeping_limit', {
      programmeId: { type: DataTypes.CHAR(36), primaryKey: true },
      ingredient: { type: text, primaryKey: true },
      daysWhole: whole,
      daysOpened: whole,
    }),
    dish: table<DishRow>('dish', {
      id,
      sessionId: reference,
      recipeId: reference,
      position: whole,
      fillings: long,
      swapIn: whole,
      ways: long,
      serves: whole,
    }),
    enrolment: table<EnrolmentRow>('enrolment', {
      id,
      courseId: reference,
      householdId: reference,
      name: text,
      age: whole,
      servings: whole,
      wishes: long,
      actionPlan: long,
      mode: text,
      groupId: reference,
      status: text,
      since: DataTypes.DATEONLY,
      sharedKit: whole,
      version: whole,
    }),
    away: table<AwayRow>('away', {
      sessionId: { type: DataTypes.CHAR(36), primaryKey: true },
      enrolmentId: { type: DataTypes.CHAR(36), primaryKey: true },
      mode: text,
    }),
    issue: table<IssueRow>('issue', {
      sessionId: { type: DataTypes.CHAR(36), primaryKey: true },
      enrolmentId: { type: DataTypes.CHAR(36), primaryKey: true },
      supplyId: { type: DataTypes.STRING(40), primaryKey: true },
      units: whole,
      drawn: text,
      label: long,
    }),
    attendance: table<AttendanceRow>('attendance', {
      id,
      sessionId: reference,
      enrolmentId: reference,
      state: text,
      at: moment,
      actorId: reference,
    }),
    sheetNote: table<SheetNoteRow>('sheet_note', {
      id,
      sessionId: reference,
      kind: text,
      revision: whole,
      basis: text,
      reason: text,
      at: moment,
      actorId: reference,
    }),
    avoidanceMeaning: table<AvoidanceMeaningRow>('avoidance_meaning', {
      id,
      programmeId: reference,
      wish: text,
      codes: long,
      giverName: text,
    }),
    productLabel: table<ProductLabelRow>('product_label', {
      id,
      sessionId: reference,
      ingredient: text,
      product: text,
      allergens: long,
    }),
    kitExclusion: table<KitExclusionRow>('kit_exclusion', {
      id,
      sessionId: reference,
      enrolmentId: reference,
      reason: text,
    }),
    kit: table<KitRow>('kit', { id, sessionId: reference, enrolmentId: reference, number: whole }),
    kitFate: table<KitFateRow>('kit_fate', {
      id,
      sessionId: reference,
      kitId: reference,
      fate: text,
      toId: reference,
      at: moment,
      actorId: reference,
    }),
    kitSheet: table<KitSheetRow>('kit_sheet', {
      id,
      sessionId: reference,
      revision: whole,
      fingerprint: text,
      snapshot: long,
      lockedAt: moment,
      lockedBy: reference,
    }),
    packEvent: table<PackEventRow>('pack_event', {
      id,
      sessionId: reference,
      kitId: reference,
      component: text,
      action: text,
      seq: whole,
      at: moment,
      actorId: reference,
    }),
    stageMark: table<StageMarkRow>('stage_mark', {
      id,
      sessionId: reference,
      stage: text,
      done: whole,
      at: moment,
      actorId: reference,
    }),
    change: table<ChangeRow>('change_log', {
      id,
      programmeId: reference,
      at: moment,
      actorId: reference,
      action: text,
      entity: text,
      entityId: reference,
      detail: long,
    }),
    signIn: table<SignInRow>('sign_in', {
      id,
      memberId: reference,
      device: text,
      createdAt: moment,
      expiresAt: moment,
      endedAt: moment,
      seenAt: moment,
      provenAt: moment,
      awaitsCode: whole,
    }),
    accessLink: table<AccessLinkRow>('access_link', {
      id,
      programmeId: reference,
      purpose: text,
      email: text,
      role: text,
      memberId: reference,
      tokenHash: text,
      createdAt: moment,
      expiresAt: moment,
      usedAt: moment,
      createdBy: reference,
    }),
    household: table<HouseholdRow>('household', {
      id,
      programmeId: reference,
      name: text,
      contact: text,
      address: text,
      home: long,
      createdAt: moment,
      erasedAt: moment,
      version: whole,
    }),
    needLook: table<NeedLookRow>('need_look', {
      id,
      programmeId: reference,
      actorId: reference,
      actorName: text,
      page: text,
      entityId: reference,
      people: whole,
      at: moment,
    }),
    message: table<MessageRow>('message', {
      id,
      programmeId: reference,
      sentTo: text,
      subject: text,
      body: long,
      createdAt: moment,
      sentAt: moment,
      linkId: reference,
      householdId: reference,
    }),
    job: table<JobRow>('job', {
      id,
      programmeId: reference,
      kind: text,
      input: long,
      state: text,
      attempts: whole,
      progress: whole,
      result: long,
      owner: text,
      leaseUntil: moment,
      cancelAsked: whole,
      createdAt: moment,
      createdBy: reference,
      notBefore: moment,
      finishedAt: moment,
    }),
    printOut: table<PrintOutRow>('print_out', {
      id,
      programmeId: reference,
      sessionId: reference,
      title: text,
      pages: whole,
      pdf: DataTypes.BLOB('long'),
      at: moment,
    }),
    deviceReading: table<DeviceReadingRow>('device_reading', {
      programmeId: { type: DataTypes.CHAR(36), primaryKey: true },
      device: { type: DataTypes.STRING(20), primaryKey: true },
      reading: text,
      at: moment,
    }),
    idempotentReply: table<IdempotentReplyRow>('idempotent_reply', {
      actorId: { type: DataTypes.CHAR(36), primaryKey: true },
      idempotencyKey: { type: DataTypes.STRING(120), primaryKey: true },
      request: text,
      programmeId: reference,
      body: long,
      createdAt: moment,
    }),
    place: table<PlaceRow>('place', {
      id,
      programmeId: reference,
      name: text,
      seats: whole,
      hours: long,
      equipment: long,
      minutesBefore: whole,
      minutesAfter: whole,
      shared: whole,
      outdoor: long,
      version: whole,
    }),
    travel: table<TravelRow>('travel', {
      fromId: { type: DataTypes.CHAR(36), primaryKey: true },
      toId: { type: DataTypes.CHAR(36), primaryKey: true },
      minutes: whole,
    }),
    closureCalendar: table<ClosureCalendarRow>('closure_calendar', {
      id,
      programmeId: reference,
      name: text,
      kind: text,
      region: text,
      placeId: reference,
    }),
    closure: table<ClosureRow>('closure', {
      id,
      calendarId: reference,
      title: text,
      fromDate: DataTypes.DATEONLY,
      toDate: DataTypes.DATEONLY,
      fromTime: text,
      toTime: text,
    }),
    sessionJob: table<SessionJobRow>('session_job', {
      id,
      sessionId: reference,
      title: text,
      stage: text,
      minutes: whole,
      hours: text,
      beforeKey: text,
    }),
    planChange: table<PlanChangeRow>('plan_change', {
      id,
      programmeId: reference,
      at: moment,
      actorId: reference,
      said: text,
      sessions: long,
      undoneAt: moment,
    }),
    calendarFeed: table<CalendarFeedRow>('calendar_feed', {
      id,
      programmeId: reference,
      scope: text,
      scopeId: reference,
      withJobs: whole,
      tokenHash: text,
      createdAt: moment,
      revokedAt: moment,
      createdBy: reference,
    }),
  };
}
