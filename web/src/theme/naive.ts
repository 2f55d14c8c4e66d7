import type { GlobalThemeOverrides } from 'naive-ui'

const common = {
  fontFamily: "'Hyperlegible', system-ui, sans-serif",
  fontFamilyMono: "'Hyperlegible Figures', ui-monospace, monospace",
  fontSize: '17px',
  fontSizeMedium: '17px',
  fontSizeLarge: '18px',
  borderRadius: '4px',
  heightMedium: '48px',
  heightLarge: '56px',
}

/** Naive UI in Undercliff's chalk and slate, by daylight. */
export const lightOverrides: GlobalThemeOverrides = {
  common: {
    ...common,
    primaryColor: '#7a5407',
    primaryColorHover: '#5e4003',
    primaryColorPressed: '#5e4003',
    bodyColor: '#e6e3d8',
    inputColor: '#fffdf6',
    popoverColor: '#f6f4ec',
    modalColor: '#f6f4ec',
    borderColor: '#6c7579',
    textColorBase: '#1c272c',
    textColor2: '#1c272c',
    placeholderColor: '#5b666b',
  },
}

/** The same for the shed at night. */
export const darkOverrides: GlobalThemeOverrides = {
  common: {
    ...common,
    primaryColor: '#e8b54d',
    primaryColorHover: '#f0c877',
    primaryColorPressed: '#e8b54d',
    bodyColor: '#151c20',
    inputColor: '#11181b',
    popoverColor: '#1f292e',
    modalColor: '#1f292e',
    borderColor: '#7f8c91',
    textColorBase: '#eeeade',
    textColor2: '#eeeade',
    placeholderColor: '#a3adaf',
  },
}
