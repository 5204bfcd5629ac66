/** Drawings are read seldom: their reader is fetched when one is opened. */
export { readDxf } from '@plate-fold/core';
