package leveltally.server.paper;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongFunction;
import leveltally.core.paper.Box;
import leveltally.core.paper.Face;
import leveltally.core.paper.Page;
import leveltally.server.pictures.Ink;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;

/** Draws laid-out pages as one PDF; boxes count from the top, PDF from the bottom. */
public final class Pdf {
    private static final Typefaces TYPEFACES = new Typefaces();

    private Pdf() {}

    /** Pages without pictures. */
    public static byte[] of(String title, List<Page> pages) {
        return of(title, pages, id -> {
            throw new IllegalStateException("picture " + id + " where none is drawn");
        });
    }

    /**
     * @param pages each is drawn and let go before the next is asked for
     * @param pictures what is drawn under their ids
     */
    public static byte[] of(String title, Iterable<Page> pages, LongFunction<Ink> pictures) {
        try (PDDocument pdf = new PDDocument(IOUtils.createTempFileOnlyStreamCache())) {
            pdf.getDocumentInformation().setTitle(title);
            Map<Face, PDFont> fonts = new EnumMap<>(Face.class);
            for (Face face : Face.values()) {
                fonts.put(face, PDType0Font.load(pdf, Typefaces.toEmbed(face), true));
            }
            PdfPictures inks = new PdfPictures(pdf, pictures);
            for (Page page : pages) {
                PDPage sheet = new PDPage(new PDRectangle((float) page.width(), (float) page.height()));
                pdf.addPage(sheet);
                try (PDPageContentStream ink = new PDPageContentStream(pdf, sheet)) {
                    for (Box box : page.boxes()) {
                        draw(ink, box, (float) page.height(), fonts, inks);
                    }
                }
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            pdf.save(bytes);
            return bytes.toByteArray();
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private static void draw(PDPageContentStream ink, Box box, float top, Map<Face, PDFont> fonts, PdfPictures pictures)
            throws IOException {
        if (box instanceof Box.Text text) {
            PDFont font = fonts.get(text.face());
            float size = (float) text.size();
            float shift = (float)
                    switch (text.align()) {
                        case LEFT -> 0;
                        case RIGHT -> TYPEFACES.width(text.face(), text.size(), text.text());
                        case CENTER -> TYPEFACES.width(text.face(), text.size(), text.text()) / 2;
                    };
            ink.beginText();
            ink.setFont(font, size);
            ink.newLineAtOffset((float) text.x() - shift, top - (float) text.y());
            ink.showText(text.text());
            ink.endText();
        } else if (box instanceof Box.Rule rule) {
            ink.setLineWidth((float) rule.width());
            ink.setLineDashPattern(rule.dashed() ? new float[] {3, 2} : new float[0], 0);
            ink.moveTo((float) rule.x1(), top - (float) rule.y1());
            ink.lineTo((float) rule.x2(), top - (float) rule.y2());
            ink.stroke();
        } else if (box instanceof Box.Frame frame) {
            ink.setLineWidth(0.7f);
            ink.setLineDashPattern(new float[0], 0);
            ink.addRect((float) frame.x(), top - (float) (frame.y() + frame.height()), (float) frame.width(), (float)
                    frame.height());
            ink.stroke();
        } else if (box instanceof Box.Bars bars) {
            for (Box.Bar bar : bars.bars()) {
                ink.addRect((float) bar.x(), top - (float) (bar.y() + bar.height()), (float) bar.width(), (float)
                        bar.height());
            }
            ink.fill();
        } else if (box instanceof Box.Drawn drawn) {
            pictures.draw(ink, drawn, top);
        }
    }
}
