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

    private record Parsed(TrueTypeFont font, CmapLookup glyphs, int unitsPerEm) {}

    private final Map<Face, Parsed> parsed = new EnumMap<>(Face.class);

    Typefaces() {
        for (Face face : Face.values()) {
            try (InputStream file = open(face)) {
                TrueTypeFont font = new TTFParser().parse(new RandomAccessReadBuffer(file.readAllBytes()));
                parsed.put(face, new Parsed(font, font.getUnicodeCmapLookup(), font.getUnitsPerEm()));
            } catch (IOException broken) {
                throw new UncheckedIOException(broken);
            }
        }
    }

    static InputStream open(Face face) {
        return Objects.requireNonNull(Typefaces.class.getResourceAsStream(FILES.get(face)));
    }

    @Override
    public synchronized double width(Face face, double size, String text) {
        Parsed file = parsed.get(face);
        try {
            long units = 0;
            for (int c : text.codePoints().toArray()) {
                units += file.font().getAdvanceWidth(file.glyphs().getGlyphId(c));
            }
            return size * units / file.unitsPerEm();
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    @Override
    public synchronized String missing(Face face, String text) {
        CmapLookup glyphs = parsed.get(face).glyphs();
        return text.codePoints()
                .filter(c -> glyphs.getGlyphId(c) == 0)
                .mapToObj(Character::toString)
                .findFirst()
                .orElse("");
    }
}
