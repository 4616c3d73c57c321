package leveltally.core.bankfiles;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is copied has the bytes it would have been encoded to. */
class TextBytesTest {
    private static final int ROUNDS = 400;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "US-ASCII",
                "ISO-8859-1",
                "ISO-8859-15",
                "windows-1252",
                "windows-1250",
                "IBM037",
                "UTF-8",
                "UTF-16LE"
            })
    void everyLetterHasItsBytes(String name) {
        Charset charset = Charset.forName(name);
        TextBytes bytes = new TextBytes(charset);
        Random random = new Random(5);
        for (int round = 0; round < ROUNDS; round++) {
            // half of the rounds stay below 256, among them those that windows-1252 does not have
            int bound = round % 2 == 0 ? 256 : 0x2FFF;
            String text = random.ints(1 + round % 40, 0, bound)
                    .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                    .toString();
            assertThat(bytes.of(text)).as("%s", text).isEqualTo(text.getBytes(charset));
        }
        assertThat(bytes.of("Île de Gorse; 1.250,00 € – “x”"))
                .isEqualTo("Île de Gorse; 1.250,00 € – “x”".getBytes(charset));
    }
}
