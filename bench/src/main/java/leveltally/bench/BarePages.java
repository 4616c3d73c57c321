package leveltally.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;
import leveltally.core.paper.Box;
import leveltally.core.paper.Face;
import leveltally.core.paper.Page;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;

/** The same texts, lines and glyphs as on checks, written by PDFBox and nothing else, where they were measured to stand. */
final class BarePages implements AutoCloseable {
    private static final Map<Face, String> FILES = Map.of(
            Face.TEXT,
            "/fonts/next-regular.ttf",
            Face.BOLD,
            "/fonts/next-bold.ttf",
            Face.MONO,
            "/fonts/mono-regular.ttf");

    private final PDDocument pdf = new PDDocument(IOUtils.createTempFileOnlyStreamCache());
    private final Map<Face, PDFont> fonts = new EnumMap<>(Face.class);

    BarePages() throws IOException {
        for (Map.Entry<Face, String> one : FILES.entrySet()) {
            try (InputStream file = Objects.requireNonNull(Page.class.getResourceAsStream(one.getValue()))) {
                fonts.put(one.getKey(), PDType0Font.load(pdf, file, true));
            }
        }
    }

    void add(Page page) throws IOException {
        PDPage sheet = new PDPage(new PDRectangle((float) page.width(), (float) page.height()));
        pdf.addPage(sheet);
        try (PDPageContentStream ink = new PDPageContentStream(pdf, sheet)) {
            for (Box box : page.boxes()) {
                write(ink, box, (float) page.height(), fonts);
            }
        }
    }

    int save() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        pdf.save(bytes);
        return bytes.size();
    }

    @Override
    public void close() throws IOException {
        pdf.close();
    }

    private static void write(PDPageContentStream ink, Box box, float top, Map<Face, PDFont> fonts) throws IOException {
        if (box instanceof Box.Text text) {
            ink.beginText();
            ink.setFont(fonts.get(text.face()), (float) text.size());
            ink.newLineAtOffset((float) text.x(), top - (float) text.y());
            ink.showText(text.text());
            ink.endText();
        } else if (box instanceof Box.Rule rule) {
            ink.setLineWidth((float) rule.width());
            ink.moveTo((float) rule.x1(), top - (float) rule.y1());
            ink.lineTo((float) rule.x2(), top - (float) rule.y2());
            ink.stroke();
        } else if (box instanceof Box.Frame frame) {
            ink.addRect((float) frame.x(), top - (float) (frame.y() + frame.height()), (float) frame.width(), (float)
                    frame.height());
            ink.stroke();
        } else if (box instanceof Box.Bars bars) {
            for (Box.Bar bar : bars.bars()) {
                ink.addRect((float) bar.x(), top - (float) (bar.y() + bar.height()), (float) bar.width(), (float)
                        bar.height());
            }
            ink.fill();
        }
    }
}
