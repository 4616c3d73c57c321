package leveltally.server.pictures;

import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.parser.LoaderContext;
import com.github.weisj.jsvg.parser.SVGLoader;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Locale;
import java.util.Set;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import leveltally.core.Refusal;

/**
 * A picture that somebody gives, read only as far as it is harmless: a PNG whose size is known before it is unpacked, or an SVG
 * of plain shapes, without text, links, scripts, pictures or repeated parts.
 *
 * @param width in pixels, or in the SVG's own units
 */
record PictureFile(PictureFormat format, double width, double height, byte[] content) {
    static final int MOST_BYTES = 400_000;
    private static final long MOST_PIXELS = 6_000_000;
    private static final int MOST_SHAPES = 5_000;
    private static final int MOST_NESTED = 60;

    private static final Set<String> PLAIN = Set.of(
            "svg",
            "g",
            "path",
            "rect",
            "circle",
            "ellipse",
            "line",
            "polyline",
            "polygon",
            "title",
            "desc",
            "defs",
            "linearGradient",
            "radialGradient",
            "stop",
            "metadata");

    /** @throws Refusal when it is none, or none that is taken */
    static PictureFile of(byte[] content) {
        if (content.length == 0 || content.length > MOST_BYTES) {
            throw refused("The picture is empty or larger than 400 KB. Save it smaller and choose it again.");
        }
        return isPng(content) ? png(content) : svg(content);
    }

    private static boolean isPng(byte[] content) {
        return content.length > 8 && (content[0] & 0xff) == 0x89 && content[1] == 'P' && content[2] == 'N';
    }

    private static PictureFile png(byte[] content) {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(content))) {
            Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName("png");
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                if ((long) width * height > MOST_PIXELS) {
                    throw refused("The picture has " + width + " by " + height
                            + " pixels, more than paper can show. Save it with at most 6 million pixels.");
                }
                BufferedImage whole = reader.read(0);
                return new PictureFile(PictureFormat.PNG, whole.getWidth(), whole.getHeight(), content);
            } finally {
                reader.dispose();
            }
        } catch (IOException | IndexOutOfBoundsException | IllegalArgumentException broken) {
            throw refused("This PNG cannot be read whole. Save it again and choose it once more.");
        }
    }

    private static PictureFile svg(byte[] content) {
        mustBePlain(content);
        SVGDocument document = document(content);
        double width = document.size().width;
        double height = document.size().height;
        if (!(width > 0 && height > 0 && width < 100_000 && height < 100_000)) {
            throw refused("This SVG says no size. Give it a width and a height, or a viewBox.");
        }
        return new PictureFile(PictureFormat.SVG, width, height, content);
    }

    static SVGDocument document(byte[] content) {
        SVGDocument document =
                new SVGLoader().load(new ByteArrayInputStream(content), null, LoaderContext.createDefault());
        if (document == null) {
            throw refused("This is neither a PNG nor a readable SVG. Choose another file.");
        }
        return document;
    }

    private static void mustBePlain(byte[] content) {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(new ByteArrayInputStream(content));
            int shapes = 0;
            int depth = 0;
            while (xml.hasNext()) {
                int event = xml.next();
                if (event == XMLStreamConstants.DTD || event == XMLStreamConstants.PROCESSING_INSTRUCTION) {
                    throw refused(
                            "This SVG declares a document type or asks for a style sheet. Save it as a plain SVG.");
                }
                if (event == XMLStreamConstants.END_ELEMENT) {
                    depth--;
                }
                if (event == XMLStreamConstants.START_ELEMENT) {
                    mustBePlain(xml);
                    if (++depth > MOST_NESTED) {
                        throw refused("This SVG has groups within groups, more than 60 deep. Make it simpler.");
                    }
                    if (++shapes > MOST_SHAPES) {
                        throw refused("This SVG has more than 5,000 shapes. Make it simpler.");
                    }
                }
            }
        } catch (XMLStreamException broken) {
            throw refused("This is neither a PNG nor a readable SVG. Choose another file.");
        }
    }

    private static void mustBePlain(XMLStreamReader xml) {
        if (!PLAIN.contains(xml.getLocalName()) && isSvg(xml)) {
            throw refused("This SVG has a part called “" + xml.getLocalName()
                    + "”, which is not printed. Turn text and effects into plain shapes and save it again.");
        }
        for (int i = 0; i < xml.getAttributeCount(); i++) {
            String value = xml.getAttributeValue(i).toLowerCase(Locale.ROOT);
            // a dash of a millionth on a long line is more than any memory holds
            if (xml.getAttributeLocalName(i).equals("stroke-dasharray") || value.contains("dasharray")) {
                throw refused(
                        "This SVG has dashed lines, which are not printed. Draw them as shapes and save it again.");
            }
            boolean fetches = value.contains("url(") && !value.contains("url(#") || value.contains("javascript:");
            if (fetches || xml.getAttributeLocalName(i).equals("href")) {
                throw refused("This SVG points to something outside of itself. Save it as a plain SVG.");
            }
        }
    }

    /** What drawing programs keep for themselves, in names of their own, is not drawn. */
    private static boolean isSvg(XMLStreamReader xml) {
        String space = xml.getNamespaceURI();
        return space == null || space.isEmpty() || space.equals("http://www.w3.org/2000/svg");
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("picture", "content", sentence);
    }
}
