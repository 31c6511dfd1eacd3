/**
 * The share of light that is thrown back where two clear things meet (Fresnel, unpolarised); 1 beyond the critical angle.
 *
 * @param cos – towards the normal, above 0
 * @param ratio – index of refraction on the side of the light over that of the other
 */
export function dielectric(cos: number, ratio: number): number {
  const sin2 = ratio * ratio * (1 - cos * cos);
  if (sin2 >= 1) return 1;
  const beyond = Math.sqrt(1 - sin2);
  const across = (ratio * cos - beyond) / (ratio * cos + beyond),
    along = (cos - ratio * beyond) / (cos + ratio * beyond);
  return (across * across + along * along) / 2;
}
