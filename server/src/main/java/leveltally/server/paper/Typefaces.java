package leveltally.server.paper;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;
import leveltally.core.paper.Face;
import leveltally.core.paper.Measure;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.springframework.stereotype.Component;

/** The typefaces we ship, measured from the same files the PDF embeds and the browser draws. */
@Component
class Typefaces implements Measure {
    private static final Map<Face, String> FILES = Map.of(
            Face.TEXT,
            "/fonts/next-regular.ttf",
            Face.BOLD,
            "/fonts/next-bold.ttf",
            Face.MONO,
            "/fonts/mono-regular.ttf");

    /** So far what is usually printed is looked up once for all. */
    private static final int USUAL = 0x3000;

    /** @param advances of the usual characters in units of the file; negative where the face has no glyph */
    private record Parsed(TrueTypeFont font, CmapLookup glyphs, int unitsPerEm, int[] advances) {
        static Parsed of(TrueTypeFont font) throws IOException {
            CmapLookup glyphs = font.getUnicodeCmapLookup();
            int[] advances = new int[USUAL];
            for (int c = 0; c < USUAL; c++) {
                advances[c] = advance(font, glyphs, c);
            }
            return new Parsed(font, glyphs, font.getUnitsPerEm(), advances);
        }

        private static int advance(TrueTypeFont font, CmapLookup glyphs, int character) throws IOException {
            int glyph = glyphs.getGlyphId(character);
            int advance = font.getAdvanceWidth(glyph);
            return glyph == 0 ? -1 - advance : advance;
        }

        int advance(int character) {
            if (character < USUAL) {
                return advances[character];
            }
            // the file is read as it is asked, by one at a time
            synchronized (font) {
                try {
                    return advance(font, glyphs, character);
                } catch (IOException broken) {
                    throw new UncheckedIOException(broken);
                }
            }
        }
    }

    private static final Map<Face, Parsed> PARSED = parsed();

    private static Map<Face, Parsed> parsed() {
        Map<Face, Parsed> parsed = new EnumMap<>(Face.class);
        for (Face face : Face.values()) {
            try (InputStream file = open(face)) {
                parsed.put(face, Parsed.of(new TTFParser().parse(new RandomAccessReadBuffer(file.readAllBytes()))));
            } catch (IOException broken) {
                throw new UncheckedIOException(broken);
            }
        }
        return parsed;
    }

    /**
     * A typeface to embed into a document: one of its own, as each keeps which glyphs it has. Without ligatures, which are
     * narrower than what was measured.
     */
    static TrueTypeFont toEmbed(Face face) throws IOException {
        try (InputStream file = open(face)) {
            TrueTypeFont font = new TTFParser(true).parse(new RandomAccessReadBuffer(file.readAllBytes()));
            font.setEnableGsub(false);
            return font;
        }
    }

    private static InputStream open(Face face) {
        return Objects.requireNonNull(Typefaces.class.getResourceAsStream(FILES.get(face)));
    }

    @Override
    public double width(Face face, double size, String text) {
        Parsed file = PARSED.get(face);
        long units = 0;
        for (int i = 0; i < text.length(); ) {
            int character = text.codePointAt(i);
            int advance = file.advance(character);
            units += advance < 0 ? -1 - advance : advance;
            i += Character.charCount(character);
        }
        return size * units / file.unitsPerEm();
    }

    @Override
    public String missing(Face face, String text) {
        Parsed file = PARSED.get(face);
        for (int i = 0; i < text.length(); ) {
            int character = text.codePointAt(i);
            if (file.advance(character) < 0) {
                return Character.toString(character);
            }
            i += Character.charCount(character);
        }
        return "";
    }
}
