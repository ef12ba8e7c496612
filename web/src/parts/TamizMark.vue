<template>
  <svg width="44" height="44" viewBox="0 0 34 34" aria-hidden="true">
    <rect width="34" height="34" rx="6" fill="#2A2136" />
    <path
      d="M5 9h24l-4.2 12H9.2z"
      fill="none"
      stroke="#E6A93A"
      stroke-width="2"
      stroke-linejoin="round"
    />
    <path d="M11 9l2 12M17 9v12M23 9l-2 12M6.5 13h21M8 17h18" stroke="#A79DB5" stroke-width="1.1" />
    <circle cx="13.5" cy="25" r="1.5" fill="#fff" />
    <circle cx="18" cy="27.5" r="1.5" fill="#fff" />
    <circle cx="21.5" cy="24.5" r="1.5" fill="#E6A93A" />
  </svg>
</template>
