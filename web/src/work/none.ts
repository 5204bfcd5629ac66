/** Stands in for what a package would load for work that is not asked of it here. */
export default undefined;
