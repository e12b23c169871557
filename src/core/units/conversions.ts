/** An inch, mm (exact since 1959). */
export const mmPerInch = 25.4;
