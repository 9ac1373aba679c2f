<script lang="ts">
  // One pattern for each material, the same in every drawing of the page.
</script>

<svg width="0" height="0" class="absolute" aria-hidden="true" focusable="false">
  <defs>
    <pattern id="m-hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <path d="M0 0H9" class="stroke-(--ground-hatch)" stroke-width="1.6" />
    </pattern>
    <pattern id="m-earth" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <rect width="9" height="9" class="fill-(--ground)" />
      <path d="M0 0H9" class="stroke-(--ground-hatch)" stroke-width="1.2" opacity="0.6" />
    </pattern>
    <pattern id="m-gravel" width="6" height="6" patternUnits="userSpaceOnUse">
      <rect width="6" height="6" class="fill-(--gravel)" />
      <circle cx="1.5" cy="1.5" r="1.1" class="fill-(--gravel-dot)" />
      <circle cx="4.6" cy="4.4" r="1.1" class="fill-(--gravel-dot)" />
    </pattern>
    <pattern id="m-stones" width="16" height="13" patternUnits="userSpaceOnUse">
      <rect width="16" height="13" class="fill-(--gravel)" />
      <path
        d="M1 5l3-4 6 1 2 4-4 4-6-1z M11 11l3-3 3 3"
        class="stroke-(--gravel-dot)"
        fill="none"
        stroke-width="1.3"
      />
    </pattern>
    <pattern id="m-boulders" width="30" height="24" patternUnits="userSpaceOnUse">
      <rect width="30" height="24" class="fill-(--concrete)" />
      <path
        d="M2 8l6-6 11 1 4 7-6 7-11-1z M19 21l5-6 6 3 M0 22l5-3 6 4"
        class="fill-(--gravel) stroke-(--gravel-dot)"
        stroke-width="1.5"
      />
    </pattern>
    <pattern id="m-boards" width="8" height="8" patternUnits="userSpaceOnUse">
      <rect width="8" height="8" class="fill-(--timber)" opacity="0.45" />
      <path d="M0 0V8" class="stroke-(--timber-edge)" stroke-width="1" opacity="0.55" />
    </pattern>
    <pattern id="m-mesh" width="10" height="10" patternUnits="userSpaceOnUse">
      <rect width="10" height="10" class="fill-(--metal)" opacity="0.12" />
      <path
        d="M0 0 10 10M10 0 0 10"
        class="stroke-(--metal-edge)"
        stroke-width="0.9"
        opacity="0.6"
        fill="none"
      />
    </pattern>
    <pattern id="m-slats" width="8" height="7" patternUnits="userSpaceOnUse">
      <rect width="8" height="7" class="fill-(--timber)" opacity="0.55" />
      <path d="M0 0.5H8" class="stroke-(--timber-edge)" stroke-width="1.2" opacity="0.75" />
    </pattern>
    <pattern id="m-pickets" width="7" height="8" patternUnits="userSpaceOnUse">
      <rect x="1" width="4" height="8" class="fill-(--metal)" opacity="0.45" />
      <path d="M1 0V8M5 0V8" class="stroke-(--metal-edge)" stroke-width="0.8" opacity="0.7" />
    </pattern>
    <pattern id="m-bars" width="6" height="8" patternUnits="userSpaceOnUse">
      <path d="M3 0V8" class="stroke-(--metal-edge)" stroke-width="1.3" opacity="0.8" />
    </pattern>
    <pattern id="m-move" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0H7" class="stroke-(--stop)" stroke-width="2.2" />
    </pattern>
    <pattern
      id="m-corridor"
      width="6"
      height="6"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(-45)"
    >
      <path d="M0 0H6" class="stroke-(--ink)" stroke-width="1.4" opacity="0.7" />
    </pattern>
    <pattern id="m-odd" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0H9" class="stroke-(--warn)" stroke-width="1.8" opacity="0.75" />
    </pattern>
    <pattern
      id="m-in-the-way"
      width="8"
      height="8"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <path d="M0 0H8M0 0V8" class="stroke-(--ink)" stroke-width="1.6" />
    </pattern>
    <pattern id="m-hits" width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0H10" class="stroke-(--stop)" stroke-width="2.2" />
    </pattern>
  </defs>
</svg>
