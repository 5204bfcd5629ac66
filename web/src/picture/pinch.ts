let pinches = 0;

/** A second finger has come down: what a first one holds is let go where it was. */
export const pinchBegan = (): void => {
  pinches++;
};

/** How many pinches there have been; a grip that was taken at another count is let go. */
export const pinchCount = (): number => pinches;
