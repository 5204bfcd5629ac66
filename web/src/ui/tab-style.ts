/** The look of a tab's trigger; its focus ring stays within the row of tabs. */
export const TAB =
  'min-h-11 px-4 font-semibold focus-visible:-outline-offset-4! border-b-[3px] border-transparent text-ink2 data-[state=active]:border-fluid data-[state=active]:text-ink';
