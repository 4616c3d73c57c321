package leveltally.server.paper;

import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.view.ViewBox;
import de.rototor.pdfbox.graphics2d.PdfBoxGraphics2D;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.function.LongFunction;
import leveltally.core.paper.Box;
import leveltally.server.pictures.Ink;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.graphics.form.PDFormXObject;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;
import org.apache.pdfbox.util.Matrix;

/** The pictures of one document: each lies in it once, however many pages show it. */
final class PdfPictures {
    private final PDDocument pdf;
    private final LongFunction<Ink> inks;
    private final Map<Long, PDImageXObject> dots = new HashMap<>();
    private final Map<Long, PDFormXObject> shapes = new HashMap<>();

    PdfPictures(PDDocument pdf, LongFunction<Ink> inks) {
        this.pdf = pdf;
        this.inks = inks;
    }

    /** @param top the height of the page: boxes count from the top, PDF from the bottom */
    void draw(PDPageContentStream page, Box.Drawn at, float top) throws IOException {
        long id = at.picture();
        if (!dots.containsKey(id) && !shapes.containsKey(id)) {
            take(id);
        }
        float x = (float) at.x();
        float y = top - (float) (at.y() + at.height());
        PDImageXObject image = dots.get(id);
        if (image != null) {
            page.drawImage(image, x, y, (float) at.width(), (float) at.height());
            return;
        }
        PDFormXObject form = shapes.get(id);
        page.saveGraphicsState();
        page.transform(new Matrix(
                (float) at.width() / form.getBBox().getWidth(),
                0,
                0,
                (float) at.height() / form.getBBox().getHeight(),
                x,
                y));
        page.drawForm(form);
        page.restoreGraphicsState();
    }

    private void take(long id) throws IOException {
        Ink ink = inks.apply(id);
        if (ink instanceof Ink.Dots picture) {
            dots.put(id, PDImageXObject.createFromByteArray(pdf, picture.png(), "picture-" + id));
        } else if (ink instanceof Ink.Shapes picture) {
            shapes.put(id, form(picture.svg()));
        }
    }

    private PDFormXObject form(SVGDocument svg) throws IOException {
        float width = svg.size().width;
        float height = svg.size().height;
        PdfBoxGraphics2D pen = new PdfBoxGraphics2D(pdf, width, height);
        try {
            svg.render(null, pen, new ViewBox(width, height));
        } finally {
            pen.dispose();
        }
        return pen.getXFormObject();
    }
}
