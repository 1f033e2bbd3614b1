/** The part of Plotly.js with cartesian charts has the whole's own types. */
declare module 'plotly.js-cartesian-dist-min' {
  import * as plotly from 'plotly.js-dist-min';
  export default plotly;
}
