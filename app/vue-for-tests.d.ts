/** Tests are checked without the compiler of Vue's own files: there a component is just that. */
declare module '*.vue' {
  import type { Component } from 'vue';
  const component: Component;
  export default component;
}
