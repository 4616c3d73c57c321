package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Collectors;
import leveltally.core.people.Deed;
import leveltally.core.people.Role;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Walks every endpoint as every role and expects exactly the table of rights, {@code rights.txt}. */
class RightsTest {
    private static final Map<String, Deed> TABLE = table();

    private static Map<String, Deed> table() {
        try (var in = Objects.requireNonNull(RightsTest.class.getResourceAsStream("/rights.txt"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(line -> !line.isBlank())
                    .map(line -> line.split("\\s+"))
                    .collect(Collectors.toMap(
                            words -> words[1] + " " + words[2],
                            words -> Deed.valueOf(words[0]),
                            (one, other) -> one,
                            TreeMap::new));
        } catch (IOException broken) {
            throw new IllegalStateException(broken);
        }
    }

    @Test
    void everyEndpointStandsInTheTable() {
        assertThat(HttpTest.all()).containsExactlyInAnyOrderElementsOf(TABLE.keySet());
    }

    @ParameterizedTest(name = "{1}")
    @CsvSource({"ines, CLERK", "maren, APPROVER", "ruth, CONTROLLER", "priya, AUDITOR", "joss, ADMINISTRATOR"})
    void everyRoleMayDoWhatTheTableSaysAndNothingElse(String signIn, Role role) {
        Http http = Http.signedIn(signIn);
        List<String> wrong = TABLE.entrySet().stream()
                .filter(line -> line.getValue().roles().contains(role) == isRefused(http, line.getKey()))
                .map(line -> line.getKey() + " needs " + line.getValue())
                .toList();
        assertThat(wrong).isEmpty();
    }

    /** What takes files in, with what has to be said of them. */
    private static final Map<String, String> UPLOADS = Map.of(
            "/api/imports", "?kind=INVOICES",
            "/api/bank-reports", "?account=987654321",
            "/api/bank-notices", "?account=987654321");

    private static boolean isRefused(Http http, String endpoint) {
        String path = endpoint.substring(endpoint.indexOf(' ') + 1).replaceAll("\\{[^}]+}", "987654321");
        Http.Answer answer = endpoint.startsWith("GET ")
                ? http.get(path)
                : UPLOADS.containsKey(path)
                        ? http.upload(path + UPLOADS.get(path), new byte[] {1})
                        : http.post(path, "{}");
        return answer.status() == 403 && answer.body().contains("needs the role");
    }

    @Test
    void anAuditorReadsAndExportsEverythingAndChangesNothing() {
        assertThat(TABLE.values().stream().filter(deed -> deed.roles().contains(Role.AUDITOR)))
                .containsOnly(Deed.READ, Deed.READ_TRAIL, Deed.RUN_PROOF);
    }
}
