/** Exact by definition: international yard and pound agreement 1959, CGPM 1901 for standard gravity. */
export const MM_PER_INCH = 25.4;
export const MM_PER_FOOT = 304.8;
export const KG_PER_LB = 0.45359237;
export const STANDARD_GRAVITY = 9.80665;
export const N_PER_LBF = KG_PER_LB * STANDARD_GRAVITY;
export const NM_PER_LBF_FT = (N_PER_LBF * MM_PER_FOOT) / 1000;
export const NM_PER_LBF_IN = NM_PER_LBF_FT / 12;
export const NM_PER_KGF_M = STANDARD_GRAVITY;
/** 1 ksi in MPa. */
export const MPA_PER_KSI = (N_PER_LBF * 1000) / (MM_PER_INCH * MM_PER_INCH);
/** US ton (2,000 lbf) in kN. */
export const KN_PER_TON = (2000 * N_PER_LBF) / 1000;

/** US liquid gallon, liters, exactly. */
export const L_PER_GALLON = 3.785411784;
/** International mile, km, exactly. */
export const KM_PER_MILE = 1.609344;
/** Of a spring's rate. */
export const N_PER_MM_PER_LB_PER_IN = N_PER_LBF / MM_PER_INCH;
export const MM2_PER_SQ_FT = MM_PER_FOOT * MM_PER_FOOT;
