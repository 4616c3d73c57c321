package leveltally.core.electronic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

class PlainXmlTest {
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    @Test
    void elementsAttributesAndWhatIsStillOpen() throws IOException {
        PlainXml xml = new PlainXml(out);
        xml.begin("a", "of", "\"1\"").element("b", "Oakum & Pitch <1>").begin("c");
        xml.finish();
        assertThat(out.toString(StandardCharsets.US_ASCII))
                .isEqualTo("<?xml version=\"1.0\" encoding=\"UTF-8\"?><a of=\"&#34;1&#34;\">"
                        + "<b>Oakum &#38; Pitch &#60;1&#62;</b><c></c></a>");
    }

    @Test
    void onlyPlainLettersAreWritten() throws IOException {
        PlainXml xml = new PlainXml(out);
        for (String other : new String[] {"Pêche", "a\nb", "\u0000", "‮abc"}) {
            assertThatThrownBy(() -> xml.element("a", other)).hasMessageContaining("plain letters");
        }
    }

    /** Texts of any length and of any plain letters, read back by the platform's own parser. */
    @Test
    void whateverItsLengthItIsReadBack() throws Exception {
        Random random = new Random(7);
        String[] texts = new String[400];
        PlainXml xml = new PlainXml(out);
        xml.begin("all");
        for (int i = 0; i < texts.length; i++) {
            int length = i == 200 ? 20_000 : random.nextInt(300);
            StringBuilder text = new StringBuilder();
            random.ints(length, ' ', '~' + 1).forEach(letter -> text.append((char) letter));
            texts[i] = text.toString();
            xml.element("one", texts[i]);
        }
        xml.finish();
        NodeList read = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(out.toByteArray()))
                .getElementsByTagName("one");
        assertThat(read.getLength()).isEqualTo(texts.length);
        for (int i = 0; i < texts.length; i++) {
            assertThat(((Element) read.item(i)).getTextContent()).isEqualTo(texts[i]);
        }
    }
}
