import type { BodyType } from '../job/entities';
import type { BodyPicture } from './body';
import { ESTATE } from './estate';
import { FOUR_DOOR } from './four-door';
import { ON_PLATFORM } from './on-platform';
import { OPEN } from './open';
import { PICKUP_CAB } from './pickup-cab';
import { TWO_DOOR } from './two-door';

/** The pictures of bare shells, one a body type. */
export const BODIES: Readonly<Record<BodyType, BodyPicture>> = {
  twoDoor: TWO_DOOR,
  fourDoor: FOUR_DOOR,
  estate: ESTATE,
  open: OPEN,
  pickupCab: PICKUP_CAB,
  onPlatform: ON_PLATFORM,
};
