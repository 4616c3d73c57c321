package leveltally.server.pictures;

import com.github.weisj.jsvg.SVGDocument;

/** What a picture puts on paper. */
public sealed interface Ink {
    /** A PNG, dot by dot. */
    record Dots(byte[] png) implements Ink {}

    /** Lines and areas, sharp at any size. */
    record Shapes(SVGDocument svg) implements Ink {}
}
