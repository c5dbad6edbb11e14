/** How the command box looks, before it is fetched and after. */
export const COMMAND_SHEET =
  'fixed left-1/2 top-[14%] z-50 w-[560px] -translate-x-1/2 border shadow-2xl [background:var(--sheet)] [border-color:var(--rule)]';
export const COMMAND_FIELD = 'h-[42px] w-full border-b bg-transparent px-4 outline-none';
