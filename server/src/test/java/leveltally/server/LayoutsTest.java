package leveltally.server;

import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.server.batches.ClaimRows;
import leveltally.server.printing.TakingOut;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Layouts are made, tried, kept and taken back without a developer, and what was printed stays as it was. */
class LayoutsTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Http RUTH = Http.signedIn("ruth");
    private static final String TODAY = App.TODAY.toString();
    private static String path;

    @BeforeAll
    static void ofOperations() {
        path = "/api/series/" + App.series() + "/layouts";
    }

    /** The others print on what was there before. */
    @AfterAll
    static void theWayBack() {
        ObjectNode standard = file(0);
        assertThat(tried(standard)).isEqualTo(200);
        assertThat(keep(standard, TODAY, "as it was", newest()).status()).isEqualTo(200);
        assertThat(file(newest())).isEqualTo(standard);
    }

    private static ObjectNode file(int version) {
        return (ObjectNode) JSON.readTree(RUTH.get(path + "/" + version).body());
    }

    private static int newest() {
        return JSON.readTree(RUTH.get(path).body()).get("newest").asInt();
    }

    private static int tried(ObjectNode layout) {
        return RUTH.post(path + "/test?printer=" + App.tray().value(), layout.toString())
                .status();
    }

    private static Http.Answer keep(ObjectNode layout, String from, String why, int newest) {
        ObjectNode body = JSON.createObjectNode();
        body.set("layout", layout);
        body.put("from", from).put("why", why).put("newest", newest);
        return RUTH.post(path, body.toString());
    }

    private static ObjectNode block(ObjectNode layout, String says) {
        return (ObjectNode) ((ArrayNode) layout.get("check"))
                .valueStream()
                .filter(one -> one.get("says").asString().equals(says))
                .findFirst()
                .orElseThrow();
    }

    /** The standard with its date half a millimetre lower for each time. */
    private static ObjectNode lower(int times) {
        ObjectNode layout = file(0);
        ObjectNode date = block(layout, "DATE");
        date.put("y", date.get("y").asDouble() + times * 0.5);
        return layout;
    }

    @Test
    void isKeptWhenItIsRightAndItsTestPageCameOut() {
        int before = newest();
        ObjectNode layout = lower(1);
        assertThat(keep(layout, TODAY, "", before).body()).contains("reason-missing");
        assertThat(keep(layout, "2026-11-11", "date lower", before).body()).contains("layout-from");
        assertThat(keep(layout, TODAY, "date lower", before).body()).contains("not-tried");
        ObjectNode wrong = file(0);
        block(wrong, "DATE").put("y", 30);
        assertThat(RUTH.post(path + "/test?printer=" + App.tray().value(), wrong.toString())
                        .body())
                .contains("On the check, date: It overlaps the payee");
        assertThat(tried(layout)).isEqualTo(200);
        assertThat(keep(layout, TODAY, "date lower", before).status()).isEqualTo(200);
        assertThat(newest()).isEqualTo(before + 1);
        assertThat(keep(layout, TODAY, "date lower", before).body()).contains("changed-meanwhile");
        JsonNode page = JSON.readTree(RUTH.get(path).body());
        assertThat(page.get("layout")).isEqualTo(layout);
        assertThat(page.get("versions").get(0).get("state").asString()).isEqualTo("printed on now");
        // one for later is not printed on yet
        ObjectNode later = lower(2);
        assertThat(tried(later)).isEqualTo(200);
        assertThat(keep(later, "2026-12-01", "for the new stock", before + 1).status())
                .isEqualTo(200);
        JsonNode now = JSON.readTree(RUTH.get(path).body());
        assertThat(now.get("layout")).isEqualTo(layout);
        assertThat(now.get("versions").get(0).get("state").asString()).isEqualTo("later");
        // who has not the right looks only
        assertThat(Http.signedIn("ines")
                        .post(path + "/test?printer=" + App.tray().value(), layout.toString())
                        .status())
                .isEqualTo(403);
        assertThat(Http.signedIn("ines").get(path).status()).isEqualTo(200);
    }

    @Test
    void whatWasPrintedIsDrawnOnTheLayoutOfItsDay() {
        BatchId first = App.approved(App.invoice("Bollard Foundry", "81.10"));
        long document = App.documents(App.numbered(first)).get(0);
        String drawn = RUTH.get("/api/documents/" + document + "/page").body();
        ObjectNode layout = lower(3);
        block(layout, "PAYEE").put("size", 13);
        assertThat(tried(layout)).isEqualTo(200);
        assertThat(keep(layout, TODAY, "larger payee", newest()).status()).isEqualTo(200);
        assertThat(RUTH.get("/api/documents/" + document + "/page").body()).isEqualTo(drawn);
        BatchId second = App.approved(App.invoice("Bollard Foundry", "81.20"));
        long later = App.documents(App.numbered(second)).get(0);
        assertThat(RUTH.get("/api/documents/" + later + "/page").body()).contains("\"size\":13.0");
        assertThat(number(
                        "SELECT COUNT(*) FROM document_content WHERE document_id = ? AND layout_id IS NOT NULL", later))
                .isEqualTo(1);
        for (BatchId batch : List.of(first, second)) {
            App.bean(TakingOut.class).takeOut(App.ines(), batch, claims(batch), false, "only tried");
        }
    }

    private static Set<ClaimId> claims(BatchId batch) {
        return App.bean(ClaimRows.class).of(batch).stream().map(Claim::id).collect(Collectors.toSet());
    }

    @Test
    void aLayoutInTheMakingIsDrawnWithTheHardestItHasToHold() {
        ObjectNode layout = file(0);
        for (String sample : List.of("PAYMENT", "LONGEST_NAME", "MOST_LINES", "SMALLEST", "LARGEST")) {
            ObjectNode body = JSON.createObjectNode();
            body.set("layout", layout);
            body.put("sample", sample);
            Http.Answer drawn = RUTH.post(path + "/draw", body.toString());
            assertThat(drawn.status()).as(drawn.body()).isEqualTo(200);
            assertThat(JSON.readTree(drawn.body()).get("findings")).isEmpty();
            assertThat(drawn.body()).contains("NOT A CHECK");
        }
        for (String page : List.of("LETTER", "A4")) {
            for (String place : List.of("TOP", "MIDDLE", "BOTTOM")) {
                ObjectNode body = JSON.createObjectNode();
                body.set(
                        "layout",
                        JSON.readTree(RUTH.get("/api/layouts/standard?page=" + page + "&place=" + place + "&stubs=1")
                                .body()));
                body.put("sample", "MOST_LINES");
                assertThat(JSON.readTree(RUTH.post(path + "/draw", body.toString())
                                        .body())
                                .get("findings"))
                        .isEmpty();
            }
        }
    }

    @Test
    void whatIsNoLayoutIsRefusedInWords() {
        ObjectNode other = file(0).put("format", "something else");
        assertThat(RUTH.post(path + "/test?printer=" + App.tray().value(), other.toString())
                        .body())
                .contains("This is no layout of checks");
        ObjectNode huge = file(0).put("checkHeight", 4000);
        assertThat(RUTH.post(path + "/test?printer=" + App.tray().value(), huge.toString())
                        .body())
                .contains("4000 mm");
        String endless =
                file(0).put("checkHeight", 1).toString().replace("\"checkHeight\":1", "\"checkHeight\":1E-999999999");
        assertThat(RUTH.post(path + "/test?printer=" + App.tray().value(), endless)
                        .body())
                .contains("too many digits");
        ObjectNode tiny = file(0);
        block(tiny, "DATE").put("width", 0);
        assertThat(RUTH.post(path + "/test?printer=" + App.tray().value(), tiny.toString())
                        .body())
                .contains("layout-broken");
        assertThat(RUTH.get("/api/layouts/standard?page=A4&place=TOP&stubs=9").body())
                .contains("one or two stubs");
        assertThat(RUTH.get(path + "/9999").status()).isEqualTo(404);
    }

    @Test
    void ofTwoWhoKeepAtOnceOneIsTold() throws Exception {
        int before = newest();
        ObjectNode one = lower(4);
        ObjectNode two = lower(5);
        assertThat(tried(one) + tried(two)).isEqualTo(400);
        ExecutorService both = Executors.newFixedThreadPool(2);
        List<Future<Http.Answer>> answers = new ArrayList<>();
        for (ObjectNode layout : List.of(one, two)) {
            answers.add(both.submit((Callable<Http.Answer>) () -> keep(layout, TODAY, "at once", before)));
        }
        List<Integer> statuses = new ArrayList<>();
        for (Future<Http.Answer> answer : answers) {
            statuses.add(answer.get().status());
        }
        both.shutdown();
        assertThat(statuses).containsExactlyInAnyOrder(200, 409);
        assertThat(newest()).isEqualTo(before + 1);
    }

    /** Whatever a printer is off by is remembered and made up for; the rights are a clerk's, too. */
    @Test
    void aPrinterIsAlignedInTenthsOfAMillimetre() {
        Http ines = Http.signedIn("ines");
        String alignment = path.replace("layouts", "alignment");
        String printer = "{\"printer\":" + App.tray().value() + ",";
        assertThat(ines.post(alignment, printer + "\"right\":-0.4,\"down\":1.5}")
                        .body())
                .contains("\"right\":-0.4,\"down\":1.5");
        JsonNode each = JSON.readTree(RUTH.get(path).body()).get("alignments");
        assertThat(each.get(0).toString()).contains("Stand-in tray", "\"right\":-0.4,\"down\":1.5");
        assertThat(each.get(1).toString()).contains("My own printer", "\"right\":0.0,\"down\":0.0");
        assertThat(ines.get(
                                path.replace("layouts", "alignment.pdf?printer=")
                                        + App.tray().value(),
                                "application/pdf")
                        .status())
                .isEqualTo(200);
        assertThat(ines.post(alignment, printer + "\"right\":10.1,\"down\":0}").body())
                .contains("a centimetre at most");
        assertThat(ines.post(alignment, printer + "\"right\":0.25,\"down\":0}").status())
                .isEqualTo(422);
        assertThat(Http.signedIn("priya")
                        .post(alignment, printer + "\"right\":0,\"down\":0}")
                        .status())
                .isEqualTo(403);
        assertThat(ines.post(alignment, printer + "\"right\":0,\"down\":0}").status())
                .isEqualTo(200);
    }

    /** In the company's own words, where the numbers are asked and when the last sheet is answered. */
    @Test
    void whichPaperIsLoadedIsSaidByTheSeries() {
        Http ines = Http.signedIn("ines");
        String loading = path.replace("layouts", "loading");
        assertThat(ines.post(loading, "{\"loading\":\" Blue check stock, tray 2 \"}")
                        .body())
                .contains("\"loading\":\"Blue check stock, tray 2\"");
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "81.30"));
        assertThat(ines.get("/api/batches/" + batch.value() + "/printing").body())
                .contains("\"loading\":\"Blue check stock, tray 2\"");
        assertThat(ines.post(loading, "{\"loading\":\"" + "x".repeat(121) + "\"}")
                        .body())
                .contains("At most 120 characters");
        assertThat(Http.signedIn("priya").post(loading, "{\"loading\":\"\"}").status())
                .isEqualTo(403);
        assertThat(ines.post(loading, "{\"loading\":\"\"}").status()).isEqualTo(200);
        App.bean(TakingOut.class).takeOut(App.ines(), batch, claims(batch), false, "only tried");
    }
}
