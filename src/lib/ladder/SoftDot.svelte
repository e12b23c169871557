<!-- The gradient every blurred dot is filled with; once per page. -->
<svg width="0" height="0" class="absolute" aria-hidden="true">
  <radialGradient id="soft-dot">
    <stop offset="0" stop-color="var(--ink)" stop-opacity="0.85" />
    <stop offset="0.45" stop-color="var(--ink)" stop-opacity="0.5" />
    <stop offset="1" stop-color="var(--ink)" stop-opacity="0" />
  </radialGradient>
</svg>
