/** The numbers of a picture's size. */
export const SIZES = {
  width_cm: { field: 'width_cm', label: 'Width', digits: 1 },
  height_cm: { field: 'height_cm', label: 'Height', digits: 1 },
} as const;
