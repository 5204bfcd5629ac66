/** A line of a menu. */
export const MENU_ITEM =
  'flex min-h-11 cursor-pointer items-center gap-3 px-4 outline-none data-[highlighted]:bg-fluid data-[highlighted]:text-onfluid';
