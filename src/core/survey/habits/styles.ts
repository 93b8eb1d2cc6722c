import { words } from "../../source/languages/habits.js";

/**
 * The properties of CSS as code writes them, without those whose names stand for other things as well, such as `content`,
 * `order` and `page`.
 */
export const styleProperties: ReadonlySet<string> = words(`
  accentColor alignContent alignItems alignSelf animation animationDelay animationDirection animationDuration
  animationFillMode animationIterationCount animationName animationPlayState animationTimingFunction appearance
  aspectRatio backdropFilter backfaceVisibility backgroundAttachment backgroundBlendMode backgroundClip backgroundColor
  backgroundImage backgroundOrigin backgroundPosition backgroundPositionX backgroundPositionY backgroundRepeat
  backgroundSize bgColor bgcolor blockSize borderBlock borderBottom borderBottomColor borderBottomLeftRadius
  borderBottomRightRadius borderBottomStyle borderBottomWidth borderCollapse borderColor borderImage borderInline
  borderLeft borderLeftColor borderLeftStyle borderLeftWidth borderRadius borderRight borderRightColor borderRightStyle
  borderRightWidth borderSpacing borderStyle borderTop borderTopColor borderTopLeftRadius borderTopRightRadius
  borderTopStyle borderTopWidth borderWidth boxShadow boxSizing breakAfter breakBefore breakInside captionSide
  caretColor clipPath columnCount columnFill columnGap columnRule columnWidth columnSpan counterIncrement counterReset
  flexBasis flexDirection flexFlow flexGrow flexShrink flexWrap fontFamily fontFeatureSettings fontKerning fontSize
  fontSmoothing fontStretch fontStyle fontVariant fontVariantNumeric fontWeight gridArea gridAutoColumns gridAutoFlow
  gridAutoRows gridColumn gridColumnEnd gridColumnGap gridColumnStart gridGap gridRow gridRowEnd gridRowGap gridRowStart
  gridTemplate gridTemplateAreas gridTemplateColumns gridTemplateRows hyphens imageRendering inlineSize justifyContent
  justifyItems justifySelf letterSpacing lineBreak lineHeight listStyle listStyleImage listStylePosition listStyleType
  marginBlock marginBottom marginInline marginInlineEnd marginInlineStart marginLeft marginRight marginTop marginX
  marginY maskImage maskPosition maskRepeat maskSize maxBlockSize maxHeight maxInlineSize maxWidth minBlockSize
  minHeight minInlineSize minWidth mixBlendMode objectFit objectPosition outlineColor outlineOffset outlineStyle
  outlineWidth overflowAnchor overflowWrap overflowX overflowY overscrollBehavior paddingBlock paddingBottom
  paddingInline paddingInlineEnd paddingInlineStart paddingLeft paddingRight paddingTop paddingX paddingY perspective
  perspectiveOrigin placeContent placeItems placeSelf pointerEvents rowGap scrollBehavior scrollMargin scrollPadding
  scrollSnapAlign scrollSnapType strokeDasharray strokeDashoffset strokeLinecap strokeLinejoin strokeWidth tabSize
  tableLayout textAlign textAlignLast textAnchor textDecoration textDecorationColor textDecorationLine
  textDecorationStyle textDecorationThickness textEmphasis textFillColor textIndent textJustify textOrientation
  textOverflow textRendering textShadow textSizeAdjust textTransform textUnderlineOffset textWrap touchAction
  transformOrigin transformStyle transitionDelay transitionDuration transitionProperty transitionTimingFunction
  unicodeBidi userSelect verticalAlign whiteSpace willChange wordBreak wordSpacing wordWrap writingMode zIndex
  WebkitAppearance WebkitBoxOrient WebkitFontSmoothing WebkitLineClamp WebkitOverflowScrolling WebkitTapHighlightColor
  WebkitTextFillColor MozOsxFontSmoothing float margin padding border background overflow cursor visibility
`);
