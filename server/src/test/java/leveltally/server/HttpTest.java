package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The edge: who may come in, and that every refusal is a sentence with a code. */
class HttpTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Http INES = Http.signedIn("ines");

    /** Every endpoint but those of one's own session: method and path, with {@code {id}} left in. */
    static Stream<String> all() {
        var mapping = App.CONTEXT.getBean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class);
        return mapping.getHandlerMethods().keySet().stream()
                .flatMap(info -> info.getPatternValues().stream()
                        .filter(path -> path.startsWith("/api/")
                                && !path.startsWith("/api/session")
                                && !path.contains("openapi"))
                        .flatMap(path -> info.getMethodsCondition().getMethods().stream()
                                .map(method -> method.name() + " " + path)));
    }

    static Stream<Arguments> endpoints() {
        return all().map(one -> one.split(" ")).map(one -> Arguments.of(one[0], one[1].replaceAll("\\{[^}]+}", "1")));
    }

    @ParameterizedTest(name = "{0} {1}")
    @MethodSource("endpoints")
    void nobodyComesInWithoutASession(String method, String path) {
        Http nobody = Http.nobody();
        nobody.get("/api/session/door");
        Http.Answer answer = method.equals("GET") ? nobody.get(path) : nobody.post(path, "{}");
        assertThat(answer.status()).isEqualTo(401);
        assertThat(answer.body()).contains("signed-out");
    }

    @Test
    void aWriteNeedsItsToken() {
        Http.Answer answer = INES.postWithoutToken("/api/batches/1/post", "{}");
        assertThat(answer.status()).isEqualTo(403);
        assertThat(answer.body()).contains("forbidden");
    }

    @Test
    void tooManyWrongPasswordsSlowTheNameDown() {
        Http nobody = Http.nobody();
        nobody.get("/api/session/door");
        String body = "{\"signIn\":\"someone\",\"password\":\"wrong\"}";
        for (int i = 0; i < 8; i++) {
            assertThat(nobody.post("/api/session", body).body()).contains("wrong-sign-in");
        }
        assertThat(nobody.post("/api/session", body).body()).contains("too-many-tries");
    }

    @ParameterizedTest
    @CsvSource({
        "/api/batches/999999, 404, no-batch",
        "/api/batches/abc, 400, unreadable",
        "/api/checks/999999, 404, no-check",
        "/api/bank-files/999999/content, 404, no-file",
        "/api/ledger/2026-13/entries, 404, no-period",
        "/api/documents/999999/page, 404, no-document",
        "/api/nothing, 404, unknown",
        "/api/due?account=999999&checkDate=2026-11-13&dueBy=2026-11-20, 404, no-bank-account",
        "/api/checks?series=999999, 404, no-series",
        "/api/due/day?text=soon, 422, day-unreadable",
        "/api/vendors/999999, 404, no-vendor",
        "/api/imports/999999, 404, no-import"
    })
    void rejectsWhatIsUnknown(String path, int status, String code) throws Exception {
        Http.Answer answer = INES.get(path);
        assertThat(answer.status()).as(answer.body()).isEqualTo(status);
        JsonNode problem = JSON.readTree(answer.body());
        assertThat(problem.get("code").asString()).isEqualTo(code);
        assertThat(problem.get("detail").asString()).endsWith(".");
    }

    @Test
    void rejectsALedgerDateInALockedPeriodAndAChangedList() {
        long account = App.operations().value();
        String question = "{\"account\":" + account + ",\"checkDate\":\"2026-11-13\",\"dueBy\":\"2026-11-20\"}";
        Http.Answer locked = INES.post(
                "/api/batches",
                "{\"name\":\"x\",\"note\":\"\",\"expectedCount\":1,\"expectedToPay\":\"1.00\",\"question\":"
                        + question.replace("}", ",\"ledgerDate\":\"2026-01-15\"}") + "}");
        assertThat(locked.status()).isEqualTo(422);
        assertThat(locked.body()).contains("January 2026 is locked");
        Http.Answer changed = INES.post(
                "/api/batches",
                "{\"name\":\"x\",\"note\":\"\",\"expectedCount\":1,\"expectedToPay\":\"1.00\",\"question\":" + question
                        + "}");
        assertThat(changed.status()).isEqualTo(409);
        assertThat(changed.body()).contains("list-changed");
    }

    @Test
    void aNumberTellsItsHistoryInOrder() throws Exception {
        long voided = App.number("SELECT MIN(id) FROM check_register WHERE state = 'VOIDED'");
        JsonNode history = JSON.readTree(INES.get("/api/checks/" + voided).body());
        assertThat(history.get("steps")
                        .valueStream()
                        .map(step -> step.get("state").asString()))
                .containsExactly("taken", "printed", "outstanding", "voided");
        assertThat(history.get("bank")).hasSize(2);
    }

    @Test
    void theListHoldsAllOrWhatIsTakenOrWhatIsLeftOut() throws Exception {
        String due = "/api/due?checkDate=2026-11-13&dueBy=2026-11-20&account="
                + App.operations().value();
        JsonNode all = JSON.readTree(INES.get(due).body());
        JsonNode taken = JSON.readTree(INES.get(due + "&showing=TAKEN").body());
        JsonNode out = JSON.readTree(INES.get(due + "&showing=LEFT_OUT").body());
        assertThat(taken.get("listed").asInt()).isEqualTo(all.get("count").asInt());
        assertThat(out.get("listed").asInt())
                .isPositive()
                .isEqualTo(all.get("listed").asInt() - all.get("count").asInt());
        // what is listed changes nothing of what is paid
        assertThat(out.get("toPay").asString()).isEqualTo(all.get("toPay").asString());
        assertThat(INES.get(due.replace("/due", "/due/csv") + "&showing=TAKEN")
                        .body()
                        .lines())
                .hasSize(1 + all.get("count").asInt())
                .noneMatch(line -> line.contains("left out"));
        assertThat(INES.get(due + "&showing=SOME").status()).isEqualTo(422);
    }

    @Test
    void anAccountPaysByItsOwnWaysOnly() {
        String due = "/api/due?checkDate=2026-11-13&dueBy=2026-11-20&account="
                + App.operations().value();
        String ways = "SELECT w.id FROM way_to_pay w JOIN bank_account a ON a.id = w.bank_account_id WHERE a.name = ";
        assertThat(INES.get(due + "&wayToPay=" + App.number(ways + "'Operations' AND w.name = 'Checks'"))
                        .status())
                .isEqualTo(200);
        // what is only recorded pays nothing
        Http.Answer recorded = INES.get(due + "&wayToPay=" + App.number(ways + "'Operations' AND w.name = 'Wires'"));
        assertThat(recorded.status()).isEqualTo(422);
        assertThat(recorded.body()).contains("recorded-only");
        Http.Answer other = INES.get(due + "&wayToPay=" + App.number(ways + "'Continental'"));
        assertThat(other.status()).isEqualTo(422);
        assertThat(other.body()).contains("no-way").contains("Operations does not pay that way");
    }

    @Test
    void hostileTextStaysText() {
        InvoiceId invoice = App.invoice("Bollard Foundry", "9.00");
        BatchId batch = App.draft(invoice);
        Http.Answer found = INES.get("/api/search?text=%27%3B%20DROP%20TABLE%20x%3B--%25_");
        assertThat(found.status()).isEqualTo(200);
        Http.Answer page = INES.get("/api/batches/" + batch.value() + "/addable?text=%3Cscript%3E");
        assertThat(page.body()).isEqualTo("[]");
        App.bean(leveltally.server.batches.Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
    }

    @Test
    void theBankFileIsTheSameBytesEveryTime() {
        App.bean(leveltally.server.posting.Posting.class)
                .post(App.ines(), App.printed(App.invoice("Bollard Foundry", "3.00")));
        long file = App.bean(leveltally.server.bankfiles.BankFiles.class).make(App.ines(), App.operations());
        String first = INES.get("/api/bank-files/" + file + "/content").body();
        assertThat(first).startsWith("H990044105004417720931");
        assertThat(first.lines()).allSatisfy(record -> assertThat(record).hasSize(80));
        INES.post("/api/bank-files/" + file + "/refused", "{\"note\":\"wrong page\"}");
        assertThat(INES.get("/api/bank-files/" + file + "/content").body()).isEqualTo(first);
        Http.Answer again = INES.post("/api/bank-files/" + file + "/accepted", "{\"note\":\"\"}");
        assertThat(again.body()).contains("answered-already");
        long next = App.bean(leveltally.server.bankfiles.BankFiles.class).make(App.ines(), App.operations());
        assertThat(App.number("SELECT follows_id FROM bank_file WHERE id = ?", next))
                .isEqualTo(file);
        assertThat(INES.get("/api/bank-files/" + next + "/content")
                        .body()
                        .lines()
                        .skip(1))
                .containsExactlyElementsOf(first.lines().skip(1).toList());
    }

    /** The browser's types are generated from this description; CI fails when they drift. */
    @Test
    void theDescriptionOfTheApiHasNotDrifted() throws Exception {
        ObjectNode described =
                (ObjectNode) JSON.readTree(INES.get("/api/openapi").body());
        described.remove("servers");
        Path kept = Path.of("../web/src/api/openapi.json");
        if (System.getProperty("openapi.update") != null) {
            Files.writeString(
                    kept,
                    JsonMapper.builder()
                                    .enable(tools.jackson.databind.SerializationFeature.INDENT_OUTPUT)
                                    .build()
                                    .writeValueAsString(described)
                            + "\n");
        }
        ObjectNode before = (ObjectNode) JSON.readTree(Files.readString(kept));
        before.remove("servers");
        assertThat(described)
                .as("run ./test --api to keep the new description and make the types from it")
                .isEqualTo(before);
    }

    @Test
    void aCommaWithinAnAmountIsNoneBetweenTwo() {
        String preview = "/api/invoices/preview?vendor="
                + App.vendor("Gannet Rope Walk").value() + "&invoiceDate=2026-11-02&amounts=";
        assertThat(INES.get(preview + "1%2C250.00").body()).contains("\"total\":\"1,250.00\"");
        assertThat(INES.get(preview + "1%2C250.00%0A0.50").body()).contains("\"total\":\"1,250.50\"");
        assertThat(INES.get(preview + "1%2C25").status()).isEqualTo(422);
    }
}
