declare module 'gltf-validator' {
  const validator: { validateBytes(bytes: Uint8Array, options?: { maxIssues?: number }): Promise<unknown> };
  export default validator;
}
