package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Lists come in the order and the part that is asked for, whole, and each person's arrangement of them is kept. */
class ListsTest {
    private static final Http INES = Http.signedIn("ines");
    private static final JsonMapper JSON = new JsonMapper();

    private static JsonNode read(String path) {
        Http.Answer answer = INES.get(path);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    private static long operations() {
        return App.number("SELECT MIN(id) FROM number_series");
    }

    /** Every number of the register, page after page. */
    private static List<JsonNode> register(String more) {
        List<JsonNode> rows = new ArrayList<>();
        String next = "";
        do {
            JsonNode page = read("/api/checks?series=" + operations() + more + next);
            page.get("rows").forEach(rows::add);
            next = page.get("next") == null || page.get("next").isNull()
                    ? ""
                    : "&after=" + page.get("next").asLong();
        } while (!next.isEmpty());
        return rows;
    }

    private static String text(JsonNode row, String... path) {
        JsonNode at = row;
        for (String name : path) {
            at = at == null || at.isNull() ? null : at.get(name);
        }
        return at == null || at.isNull() ? "" : at.asString();
    }

    private static long minor(JsonNode row) {
        String text = text(row, "amount", "text");
        return text.isEmpty() ? -1 : Long.parseLong(text.replaceAll("[.,]", ""));
    }

    @ParameterizedTest
    @CsvSource({"PAYEE, false", "PAYEE, true", "AMOUNT, false", "AMOUNT, true", "CHECK_DATE, true", "NUMBER, false"})
    void theRegisterIsSortedAcrossItsPagesAndLosesNoNumber(String by, boolean descending) {
        List<JsonNode> rows = register("&sortedBy=" + by + "&descending=" + descending);
        Comparator<JsonNode> order = switch (by) {
            // as the database compares words
            case "PAYEE" ->
                Comparator.comparing(row -> text(row, "payee")
                        .toLowerCase(java.util.Locale.ROOT)
                        .substring(0, Math.min(1, text(row, "payee").length())));
            case "AMOUNT" -> Comparator.comparing(ListsTest::minor);
            case "CHECK_DATE" -> Comparator.comparing(row -> text(row, "checkDate"));
            default -> Comparator.comparing(row -> row.get("number").asLong());
        };
        List<JsonNode> amounts = by.equals("AMOUNT")
                // a number without an amount of its own may carry one behind it
                ? rows.stream().filter(row -> minor(row) >= 0).toList()
                : rows;
        assertThat(amounts).isSortedAccordingTo(descending ? order.reversed() : order);
        assertThat(rows.stream().map(row -> row.get("number").asLong()).distinct())
                .hasSize(Math.toIntExact(
                        App.number("SELECT COUNT(*) FROM check_number WHERE series_id = " + operations())));
    }

    private static List<String> found(String more) {
        return rowsOf("/api/checks?" + more).stream()
                .map(row -> text(row, "id"))
                .sorted()
                .toList();
    }

    private static List<JsonNode> rowsOf(String path) {
        List<JsonNode> rows = new ArrayList<>();
        read(path).get("rows").forEach(rows::add);
        return rows;
    }

    /** Against a slow reading of the same rows: by payee, number, reference, batch and amount, and by several of them at once. */
    @Test
    void aNumberIsFoundByWhatItHolds() {
        record Held(long id, long number, String payee, String reference, String batch, String amount) {}
        List<Held> held = App.jdbc().sql("""
                        SELECT n.id, n.number, p.payee, MIN(i.reference) AS reference, b.name AS batch,
                          CONCAT(p.amount_minor DIV 100, '.', LPAD(p.amount_minor MOD 100, 2, '0')) AS amount
                        FROM check_number n JOIN payment p ON p.id = n.payment_id JOIN batch b ON b.id = p.batch_id
                        JOIN claim_line l ON l.claim_id = p.claim_id JOIN invoice i ON i.id = l.invoice_id
                        WHERE p.currency = 'USD' GROUP BY n.id ORDER BY n.id
                        """).query(Held.class).list();
        // the end of a reference is the end of its last word
        List<Held> ofOneWord =
                held.stream().filter(row -> !row.reference().contains(" ")).toList();
        Held one = ofOneWord.get(ofOneWord.size() / 2);
        String payee = one.payee().split(" ")[0];
        assertThat(found("text=" + payee))
                .containsAll(held.stream()
                        .filter(row -> row.payee().contains(payee))
                        .map(row -> String.valueOf(row.id()))
                        .toList());
        for (String word : List.of(
                String.valueOf(one.number()),
                one.reference(),
                one.reference().substring(1),
                one.amount(),
                payee + " " + one.amount(),
                one.number() + " " + one.reference())) {
            assertThat(found("text=" + URLEncoder.encode(word, StandardCharsets.UTF_8)))
                    .as(word)
                    .contains(String.valueOf(one.id()));
        }
        assertThat(found("text=" + payee + "%20nothing-holds-that")).isEmpty();
        assertThat(found("text=" + one.number() + "%20987654321098")).isEmpty();
        // amounts, days and age narrow it further
        assertThat(found("amountFrom=" + one.amount() + "&amountTo=" + one.amount() + "&text=" + payee))
                .contains(String.valueOf(one.id()));
        assertThat(rowsOf("/api/checks?olderThan=180&state=OUTSTANDING"))
                .allSatisfy(row -> assertThat(text(row, "then")).contains("days, stale"));
        assertThat(rowsOf("/api/checks?from=2026-10-01&to=2026-10-31"))
                .isNotEmpty()
                .allSatisfy(row -> assertThat(text(row, "checkDate")).startsWith("2026-10"));
    }

    @ParameterizedTest
    @CsvSource({
        "text=a, word-too-short",
        "text=a1%20b2%20c3%20d4%20e5%20f6%20g7, too-many-words",
        "amountFrom=1250%2C00, amount",
        "state=EATEN, no-state",
        "series=987654, no-series"
    })
    void rejectsWhatTheRegisterCannotBeAsked(String asked, String code) {
        assertThat(INES.get("/api/checks?" + asked).body()).contains(code);
    }

    /** Pages of every series at once, in one order. */
    @Test
    void ofEverySeriesNoNumberIsLost() {
        List<String> seen = new ArrayList<>();
        String next = "";
        do {
            JsonNode page = read("/api/checks?sortedBy=AMOUNT&descending=true" + next);
            page.get("rows").forEach(row -> seen.add(text(row, "id")));
            next = text(page, "next").isEmpty() ? "" : "&after=" + text(page, "next");
        } while (!next.isEmpty());
        assertThat(seen)
                .doesNotHaveDuplicates()
                .hasSize(Math.toIntExact(App.number("SELECT COUNT(*) FROM check_number")));
    }

    @Test
    void whatIsTakenAwayOfTheRegisterIsWhatIsListed() {
        String csv = INES.get("/api/checks/csv?series=" + operations() + "&state=VOIDED&sortedBy=NUMBER")
                .body();
        List<Long> listed = register("&state=VOIDED&sortedBy=NUMBER").stream()
                .map(row -> row.get("number").asLong())
                .toList();
        assertThat(listed).isNotEmpty();
        assertThat(csv.lines().skip(1).map(line -> Long.parseLong(line.split(",")[0])))
                .containsExactlyElementsOf(listed);
    }

    @Test
    void vendorsComeByWhatIsOpenAndTheFileHoldsThoseThatAreListed() {
        JsonNode rows = read("/api/vendors/list?sortedBy=COUNT&descending=true");
        List<Integer> counts = new ArrayList<>();
        rows.forEach(row -> counts.add(row.get("count").asInt()));
        assertThat(counts).hasSizeGreaterThan(20).isSortedAccordingTo(Comparator.reverseOrder());
        JsonNode fuel = read("/api/vendors/list?group=Fuel&sortedBy=NUMBER");
        List<String> numbers = new ArrayList<>();
        fuel.forEach(row -> numbers.add(row.get("number").asString()));
        String csv = INES.get("/api/vendors/csv?group=Fuel&sortedBy=NUMBER").body();
        assertThat(csv.lines().skip(1).map(line -> line.split(",")[0])).containsExactlyElementsOf(numbers);
    }

    @ParameterizedTest
    @ValueSource(strings = {"OPEN", "TO_PAY"})
    void whatIsDueIsSortedWithinItsGroups(String by) {
        String asked = "account=" + App.number("SELECT MIN(id) FROM bank_account")
                + "&checkDate=usual&dueBy=usual&nextRun=usual&listedBy=DAY&showing=TAKEN&descending=true&sortedBy="
                + by;
        JsonNode due = read("/api/due?" + asked);
        List<JsonNode> rows = new ArrayList<>();
        for (int from = 0; from < due.get("listed").asInt(); from += 100) {
            read("/api/due/rows?" + asked + "&from=" + from).forEach(rows::add);
        }
        for (JsonNode group : due.get("groups")) {
            int first = group.get("first").asInt();
            List<Long> amounts = IntStream.range(
                            first, first + group.get("count").asInt())
                    .mapToObj(place -> Long.parseLong(text(rows.get(place), by.equals("OPEN") ? "open" : "toPay")
                            .replaceAll("[.,]", "")))
                    .toList();
            assertThat(amounts).isSortedAccordingTo(Comparator.reverseOrder());
        }
        String entry = String.valueOf(rows.get(0).get("invoice").asLong());
        String csv = INES.get("/api/due/csv?" + asked + "&selected=" + entry).body();
        assertThat(csv.lines().skip(1).map(line -> line.split(",")[0])).containsExactly(entry);
    }

    private static final String KEPT = "{\"columns\": [{\"key\": \"amount\", \"width\": 140, \"hidden\": false}],"
            + " \"sortedBy\": \"amount\", \"descending\": true, \"folded\": [\"late\"]}";

    @Test
    void anArrangementIsKeptForWhoeverMadeItAndForNobodyElse() {
        assertThat(INES.post("/api/lists/test-list", KEPT).status()).isEqualTo(200);
        assertThat(INES.post("/api/lists/test-list", KEPT.replace("140", "150")).status())
                .isEqualTo(200);
        JsonNode mine =
                JSON.readTree(Http.signedIn("ines").get("/api/lists").body()).get("test-list");
        assertThat(mine.get("columns").get(0).get("width").asInt()).isEqualTo(150);
        assertThat(mine.get("folded").get(0).asString()).isEqualTo("late");
        assertThat(Http.signedIn("priya").get("/api/lists").body()).doesNotContain("test-list");
        // an auditor changes nothing here but how they look at it
        assertThat(Http.signedIn("priya").post("/api/lists/test-list", KEPT).status())
                .isEqualTo(200);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Not a list | {\"columns\": [], \"descending\": false, \"folded\": []}",
                "a-list | {\"columns\": [{\"key\": \"a\", \"width\": 3, \"hidden\": false}], \"descending\": false, \"folded\": []}",
                "a-list | {\"columns\": [null], \"descending\": false, \"folded\": []}",
                "a-list | {\"descending\": false, \"folded\": []}"
            })
    void whatIsNoArrangementIsRefused(String list, String body) {
        Http.Answer answer = INES.post("/api/lists/" + list.strip().replace(" ", "%20"), body);
        assertThat(answer.status()).as(answer.body()).isEqualTo(422);
    }

    @Test
    void nobodyFillsTheDatabaseWithLists() {
        Http aldo = Http.signedIn("aldo");
        int kept = 0;
        while (kept < 100
                && aldo.post("/api/lists/list-" + "x".repeat(kept % 30) + (char) ('a' + kept / 30), KEPT)
                                .status()
                        == 200) {
            kept++;
        }
        assertThat(kept).isEqualTo(60);
    }
}
