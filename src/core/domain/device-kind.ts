/** What sort of thing a device is, as a person says it. */
export const DEVICE_KINDS = ['desktop', 'laptop', 'tablet', 'phone', 'server', 'box', 'other'] as const;
export type DeviceKind = (typeof DEVICE_KINDS)[number];
