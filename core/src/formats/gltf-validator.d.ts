/** The package's main file carries no types. */
declare module 'gltf-validator' {
  export function validateBytes(bytes: Uint8Array): Promise<{
    readonly issues: {
      readonly numErrors: number;
      readonly numWarnings: number;
      readonly messages: readonly { readonly code: string; readonly message: string }[];
    };
    readonly info: { readonly totalTriangleCount: number };
  }>;
}
