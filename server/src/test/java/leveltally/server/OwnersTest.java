package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Each table is written by one capability; the others ask it, or read. */
class OwnersTest {
    private static final Path SOURCES = Path.of("src/main/java/leveltally/server");
    private static final Pattern JOINED = Pattern.compile("\"\\s*\\+\\s*\"");
    private static final Pattern WRITES =
            Pattern.compile("\\b(?:INSERT (?:IGNORE )?INTO|REPLACE INTO|DELETE FROM|UPDATE)\\s+([a-z_]+)\\b"
                    + "|@Table\\(name = \"([a-z_]+)\"\\)");

    /** What stands in each capability's sources as a written table. */
    private static Map<String, TreeSet<String>> writers() throws IOException {
        Map<String, TreeSet<String>> writers = new TreeMap<>();
        try (Stream<Path> files = Files.walk(SOURCES)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".java")).toList()) {
                String capability = SOURCES.relativize(file).getName(0).toString();
                Matcher found =
                        WRITES.matcher(JOINED.matcher(Files.readString(file)).replaceAll(""));
                while (found.find()) {
                    String table = found.group(1) == null ? found.group(2) : found.group(1);
                    writers.computeIfAbsent(table, none -> new TreeSet<>()).add(capability);
                }
            }
        }
        return writers;
    }

    @Test
    void rowsAreReadByTheNamesOfTheirColumns() throws IOException {
        Pattern byPlace = Pattern.compile("\\b(?:r|row|rs|rows)\\.get\\w+\\(\\d");
        List<String> found = new ArrayList<>();
        try (Stream<Path> files = Files.walk(SOURCES)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".java")).toList()) {
                if (byPlace.matcher(Files.readString(file)).find()) {
                    found.add(file.toString());
                }
            }
        }
        assertThat(found).isEmpty();
    }

    @Test
    void eachTableIsWrittenByItsOwnerOnly() throws IOException {
        Map<String, TreeSet<String>> writers = writers();
        // the reading of the sources itself finds what it should
        assertThat(writers).containsKeys("claim_line", "bank_event", "document_content", "approval_claim", "batch_out");
        assertThat(writers)
                .allSatisfy((table, capabilities) ->
                        assertThat(capabilities).as(table).hasSize(1));
    }
}
