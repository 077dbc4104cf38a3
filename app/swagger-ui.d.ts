declare module 'swagger-ui-dist/swagger-ui-es-bundle' {
  /** Draws an OpenAPI document into an element. */
  const show: (options: {
    domNode: HTMLElement | null;
    url: string;
    docExpansion: 'none';
    tryItOutEnabled: boolean;
    deepLinking: boolean;
  }) => void;
  export default show;
}
