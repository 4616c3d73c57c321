package leveltally.server.pictures;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.CRC32;
import javax.imageio.ImageIO;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PictureFileTest {
    private static byte[] png(int width, int height) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB), "png", bytes);
        return bytes.toByteArray();
    }

    private static byte[] svg(String inside) {
        return ("<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"40\" height=\"10\">"
                        + inside + "</svg>")
                .getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void aPngAndAnSvgOfShapesAreTakenWithTheirSize() throws IOException {
        PictureFile dots = PictureFile.of(png(30, 20));
        assertThat(dots.format()).isEqualTo(PictureFormat.PNG);
        assertThat(dots.width() / dots.height()).isEqualTo(1.5);
        PictureFile shapes = PictureFile.of(svg("<g><path d=\"M0 0L40 10\"/><circle cx=\"5\" cy=\"5\" r=\"4\"/></g>"));
        assertThat(shapes.format()).isEqualTo(PictureFormat.SVG);
        assertThat(shapes.width() / shapes.height()).isEqualTo(4);
    }

    /** A few bytes that say they are a hundred million dots are refused before they are unpacked. */
    @Test
    void rejectsAPngThatUnpacksToMoreThanItMay() throws IOException {
        byte[] bomb = png(8, 8);
        ByteBuffer head = ByteBuffer.wrap(bomb);
        head.putInt(16, 30_000).putInt(20, 30_000);
        CRC32 sum = new CRC32();
        sum.update(bomb, 12, 17);
        head.putInt(29, (int) sum.getValue());
        assertThatThrownBy(() -> PictureFile.of(bomb)).hasMessageContaining("30000 by 30000 pixels");
    }

    @Test
    void rejectsAPngThatBreaksOff() throws IOException {
        byte[] whole = png(300, 300);
        assertThatThrownBy(() -> PictureFile.of(Arrays.copyOf(whole, whole.length - 40)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("cannot be read whole");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            <script>alert(1)</script>                                   | called “script”
            <image href="a.png" width="4" height="4"/>                  | called “image”
            <foreignObject/>                                            | called “foreignObject”
            <text>Marrow Bay</text>                                     | called “text”
            <use xlink:href="#a"/>                                      | called “use”
            <rect width="4" height="4" fill="url(file:///x)"/>          | outside of itself
            <linearGradient id="a" xlink:href="#b"/>                    | outside of itself
            <path d="M0 0H9" stroke-dasharray="0.001"/>                 | has dashed lines
            <path d="M0 0H9" style="stroke-dasharray:0.001"/>           | has dashed lines
            <path d="M0 0"                                              | nor a readable SVG
            """)
    void rejectsWhatIsMoreThanShapes(String inside, String why) {
        assertThatThrownBy(() -> PictureFile.of(svg(inside)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(why);
    }

    @Test
    void rejectsEntitiesAndWhatIsNoPicture() {
        String entity = "<!DOCTYPE svg [<!ENTITY a \"b\">]><svg xmlns=\"http://www.w3.org/2000/svg\"/>";
        assertThatThrownBy(() -> PictureFile.of(entity.getBytes(StandardCharsets.UTF_8)))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> PictureFile.of("%PDF-1.7".getBytes(StandardCharsets.UTF_8)))
                .hasMessageContaining("neither a PNG nor a readable SVG");
        assertThatThrownBy(() -> PictureFile.of(new byte[0])).hasMessageContaining("empty");
        assertThatThrownBy(() -> PictureFile.of(new byte[PictureFile.MOST_BYTES + 1]))
                .hasMessageContaining("larger than 400 KB");
        assertThatThrownBy(() -> PictureFile.of(svg("<g>".repeat(70) + "</g>".repeat(70))))
                .hasMessageContaining("groups within groups");
        assertThatThrownBy(() -> PictureFile.of(svg("<path/>".repeat(6_000)))).hasMessageContaining("more than 5,000");
    }
}
