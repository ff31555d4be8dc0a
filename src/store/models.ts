import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize';
import type {
  ApiTokenRow,
  AvoidanceMeaningRow,
  ChangeRow,
  CourseRow,
  DishRow,
  EnrolmentRow,
  KitExclusionRow,
  KitRow,
  KitSheetRow,
  MemberRow,
  PackEventRow,
  ProductLabelRow,
  ProgrammeRow,
  RecipeRow,
  SessionRow,
  StageMarkRow,
} from './rows';

type Table<Row extends object> = ModelStatic<Model<Row, Row>>;

/** The tables, each a Sequelize model over plain rows (see rows.ts). */
export interface Models {
  readonly programme: Table<ProgrammeRow>;
  readonly member: Table<MemberRow>;
  readonly apiToken: Table<ApiTokenRow>;
  readonly course: Table<CourseRow>;
  readonly session: Table<SessionRow>;
  readonly recipe: Table<RecipeRow>;
  readonly dish: Table<DishRow>;
  readonly enrolment: Table<EnrolmentRow>;
  readonly avoidanceMeaning: Table<AvoidanceMeaningRow>;
  readonly productLabel: Table<ProductLabelRow>;
  readonly kitExclusion: Table<KitExclusionRow>;
  readonly kit: Table<KitRow>;
  readonly kitSheet: Table<KitSheetRow>;
  readonly packEvent: Table<PackEventRow>;
  readonly stageMark: Table<StageMarkRow>;
  readonly change: Table<ChangeRow>;
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
      version: whole,
    }),
    member: table<MemberRow>('member', {
      id,
      programmeId: reference,
      email: text,
      name: text,
      role: text,
      passwordHash: text,
      version: whole,
    }),
    apiToken: table<ApiTokenRow>('api_token', {
      id,
      programmeId: reference,
      name: text,
      role: text,
      tokenHash: text,
      expiresAt: moment,
    }),
    course: table<CourseRow>('course', { id, programmeId: reference, title: text, audience: text, version: whole }),
    session: table<SessionRow>('session', {
      id,
      courseId: reference,
      number: whole,
      title: text,
      date: DataTypes.DATEONLY,
      startsAt: text,
      minutes: whole,
      place: text,
      mode: text,
      version: whole,
    }),
    recipe: table<RecipeRow>('recipe', { id, programmeId: reference, title: text, body: long, version: whole }),
    dish: table<DishRow>('dish', { id, sessionId: reference, recipeId: reference, position: whole }),
    enrolment: table<EnrolmentRow>('enrolment', {
      id,
      courseId: reference,
      name: text,
      age: whole,
      servings: whole,
      wishes: long,
      mode: text,
      status: text,
      version: whole,
    }),
    avoidanceMeaning: table<AvoidanceMeaningRow>('avoidance_meaning', {
      id,
      programmeId: reference,
      wish: text,
      codes: long,
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
  };
}
