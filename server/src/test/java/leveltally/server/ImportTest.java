package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Files from the edge to the ledger: what is good comes in once, what is not is named by line, column and reason. */
class ImportTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Http INES = Http.signedIn("ines");
    private static final String HEAD = "vendor,reference,invoice_date,amount,account\n";

    @AfterAll
    static void everyLawHolds() {
        assertThat(App.bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static JsonNode sent(String kind, byte[]... files) {
        Http.Answer answer = INES.upload("/api/imports?kind=" + kind, files);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return settled(JSON.readTree(answer.body()).get("id").asLong());
    }

    private static JsonNode settled(long id) {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (true) {
            JsonNode job = JSON.readTree(INES.get("/api/imports/" + id).body());
            if (!job.get("running").asBoolean()) {
                return job;
            }
            assertThat(System.nanoTime())
                    .as("import " + id + " takes too long: " + job)
                    .isLessThan(end);
            try {
                Thread.sleep(50);
            } catch (InterruptedException stopped) {
                throw new IllegalStateException(stopped);
            }
        }
    }

    private static JsonNode csv(String text) {
        return sent("INVOICES", text.getBytes(StandardCharsets.UTF_8));
    }

    private static JsonNode bringIn(JsonNode job, boolean onlyGood) {
        long id = job.get("id").asLong();
        Http.Answer answer = INES.post("/api/imports/" + id + "/bring-in", "{\"onlyGood\":" + onlyGood + "}");
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return settled(id);
    }

    private static String counts(JsonNode job) {
        return job.get("state").asString() + " " + job.get("good").asInt() + " good "
                + job.get("refused").asInt()
                + " refused " + job.get("duplicates").asInt() + " duplicates "
                + job.get("broughtIn").asInt() + " in";
    }

    @Test
    void whatIsGoodComesInOnceAndTheRestIsNamed() {
        String text = "\ufeff" + HEAD
                + "V1014,IM-1,2026-11-03,1250.00,5300\n"
                + "V1014,IM-1,2026-11-03,50.00,5200\n"
                + "V1014,IM-2,2026-11-04,\"1,000.00\",5300\n"
                + "V9999,IM-3,2026-11-04,10.00,5300\n"
                + "V1014,=IM-4,2026-11-04,10.00,5300\n"
                + "V1014,IM-2,2026-11-04,10.00,5300\n";
        JsonNode job = csv(text);
        assertThat(counts(job)).isEqualTo("CHECKED 4 good 2 refused 0 duplicates 0 in");
        JsonNode refused =
                JSON.readTree(INES.get("/api/imports/" + job.get("id").asLong() + "/rows?outcome=REFUSED")
                        .body());
        assertThat(refused.get(0).get("place").asString()).isEqualTo("5");
        assertThat(refused.get(0).get("column").asString()).isEqualTo("vendor");
        assertThat(refused.get(0).get("reason").asString()).contains("there is no vendor V9999");
        assertThat(refused.get(1).get("reason").asString()).contains("formula");
        Http.Answer all = INES.post("/api/imports/" + job.get("id").asLong() + "/bring-in", "{\"onlyGood\":false}");
        assertThat(all.body()).contains("rows-refused");
        assertThat(counts(bringIn(job, true))).isEqualTo("DONE 4 good 2 refused 0 duplicates 4 in");
        assertThat(App.number("SELECT amount_minor FROM invoice WHERE reference = 'IM-1'"))
                .isEqualTo(130_000);
        assertThat(App.number("SELECT COUNT(*) FROM invoice_line l JOIN invoice i ON i.id = l.invoice_id"
                        + " WHERE i.reference = 'IM-1'"))
                .isEqualTo(2);
        // the lines of one document stand apart in the file
        assertThat(App.number("SELECT amount_minor FROM invoice WHERE reference = 'IM-2'"))
                .isEqualTo(101_000);
        // the same file again brings nothing in
        assertThat(counts(csv(text))).isEqualTo("CHECKED 0 good 2 refused 4 duplicates 0 in");
    }

    /** The database does not tell cases apart; what the check lets through must come in. */
    @Test
    void aNumberInAnotherCaseIsRefusedBeforeAnythingComesIn() {
        JsonNode job = csv(HEAD + "v1014,CASE-1,2026-11-03,1.00,5300\n");
        assertThat(counts(job)).isEqualTo("CHECKED 0 good 1 refused 0 duplicates 0 in");
        JsonNode vendors = sent(
                "VENDORS",
                "number,name,currency,terms,address\nv1014,Twin,USD,net 30,x\nCASE-7,One,USD,net 30,x\ncase-7,Two,USD,net 30,x\n"
                        .getBytes(StandardCharsets.UTF_8));
        assertThat(counts(vendors)).isEqualTo("CHECKED 1 good 0 refused 2 duplicates 0 in");
        assertThat(counts(bringIn(vendors, true))).startsWith("DONE");
    }

    @Test
    void columnsAreNamedByHandWhereTheHeaderDoesNot() {
        JsonNode job = csv("vendor;their number;invoice date;amount;account\nV1014;MAP-1;2026-11-03;12.00;5300\n");
        assertThat(job.get("state").asString()).isEqualTo("COLUMNS");
        assertThat(job.get("trouble").asString()).contains("missing: reference");
        long id = job.get("id").asLong();
        INES.post("/api/imports/" + id + "/choices", "{\"columns\":{\"reference\":\"their number\"}}");
        assertThat(counts(settled(id))).isEqualTo("CHECKED 1 good 0 refused 0 duplicates 0 in");
        INES.post("/api/imports/" + id + "/discard", "{}");
        assertThat(App.number("SELECT COUNT(*) FROM import_row WHERE job_id = ?", id))
                .isZero();
    }

    @Test
    void vendorsComeIn() {
        JsonNode job = sent(
                "VENDORS",
                ("number,name,currency,terms,address\nVX-1,Samphire Rope Store,USD,\"2% 10, net 30\",7 Slipway Road; Skerrow\n"
                                + "VX-2,@cmd,USD,net 30,x\n")
                        .getBytes(StandardCharsets.UTF_8));
        assertThat(counts(job)).isEqualTo("CHECKED 1 good 1 refused 0 duplicates 0 in");
        assertThat(counts(bringIn(job, true))).startsWith("DONE");
        assertThat(App.number("SELECT COUNT(*) FROM vendor v JOIN remit_to t ON t.vendor_id = v.id"
                        + " WHERE v.number = 'VX-1' AND t.address = '7 Slipway Road\nSkerrow'"))
                .isOne();
    }

    private static String ubl(String root, String body) {
        return "<?xml version=\"1.0\"?>" + body.replace("ROOT", root);
    }

    private static final String DOCUMENT = """
            <ROOT xmlns="urn:oasis:names:specification:ubl:schema:xsd:ROOT-2"
              xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2"
              xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">
            <cbc:ID>UBL-1</cbc:ID><cbc:IssueDate>2026-11-05</cbc:IssueDate>
            <cbc:DocumentCurrencyCode>USD</cbc:DocumentCurrencyCode>
            <cac:AccountingSupplierParty><cbc:CustomerAssignedAccountID>V1014</cbc:CustomerAssignedAccountID>
            </cac:AccountingSupplierParty>
            <cac:TaxTotal><cbc:TaxAmount currencyID="USD">21.00</cbc:TaxAmount></cac:TaxTotal>
            <cac:LegalMonetaryTotal><cbc:PayableAmount currencyID="USD">121.00</cbc:PayableAmount></cac:LegalMonetaryTotal>
            <cac:ROOTLine><cbc:ID>1</cbc:ID><cbc:LineExtensionAmount currencyID="USD">100.00</cbc:LineExtensionAmount>
            <cbc:AccountingCost>5300</cbc:AccountingCost></cac:ROOTLine></ROOT>
            """;

    @Test
    void ublDocumentsComeInWithWhatTaxAdds() {
        String evil =
                "<?xml version=\"1.0\"?><!DOCTYPE Invoice [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><Invoice>&x;</Invoice>";
        JsonNode job = sent(
                "UBL",
                ubl("Invoice", DOCUMENT).getBytes(StandardCharsets.UTF_8),
                ubl("CreditNote", DOCUMENT).getBytes(StandardCharsets.UTF_8),
                evil.getBytes(StandardCharsets.UTF_8),
                "<note>hello</note>".getBytes(StandardCharsets.UTF_8));
        assertThat(counts(job)).isEqualTo("CHECKED 4 good 2 refused 0 duplicates 0 in");
        String refused = INES.get("/api/imports/" + job.get("id").asLong() + "/rows?outcome=REFUSED")
                .body();
        assertThat(refused)
                .contains("DOCTYPE")
                .contains("neither a UBL Invoice")
                .doesNotContain("root:");
        assertThat(counts(bringIn(job, true))).startsWith("DONE");
        assertThat(App.number("SELECT SUM(amount_minor) FROM invoice WHERE reference = 'UBL-1'"))
                .isEqualTo(24_200);
        assertThat(App.number("SELECT COUNT(DISTINCT kind) FROM invoice WHERE reference = 'UBL-1'"))
                .isEqualTo(2);
    }

    @Test
    void aSenderThatSomebodyNamedByHandIsKnownInTheNextFile() {
        String endpoint = DOCUMENT.replace(
                        "<cbc:CustomerAssignedAccountID>V1014</cbc:CustomerAssignedAccountID>",
                        "<cac:Party><cbc:EndpointID schemeID=\"0192\">by hand 77</cbc:EndpointID></cac:Party>")
                .replace("UBL-1", "BY-HAND-1");
        byte[] file = ubl("Invoice", endpoint).getBytes(StandardCharsets.UTF_8);
        assertThat(counts(sent("UBL", file))).startsWith("CHECKED").contains("1 refused");
        String kept = "/api/vendors/" + App.number("SELECT id FROM vendor WHERE number = 'V1014'") + "/identifiers";
        String other = "/api/vendors/" + App.number("SELECT id FROM vendor WHERE number = 'V1015'") + "/identifiers";
        String named = "{\"kind\": \"ENDPOINT\", \"register\": \"0192\", \"value\": \" By  hand 77 \"}";
        assertThat(INES.post(kept, named).status()).isEqualTo(200);
        assertThat(INES.post(kept, named).status()).isEqualTo(200);
        assertThat(INES.post(other, named).body()).contains("come from vendor V1014");
        assertThat(INES.post(kept, named.replace("0192", "no register!")).body())
                .contains("A register is named");
        assertThat(INES.post(kept, named.replace(" By  hand 77 ", " ")).body()).contains("Write what stands");
        assertThat(INES.get(kept).body()).contains("electronic address 0192", "BY HAND 77");
        assertThat(counts(sent("UBL", file))).isEqualTo("CHECKED 2 good 0 refused 0 duplicates 0 in");
        String gone = "{\"scheme\": \"endpoint 0192\", \"value\": \"BY HAND 77\"}";
        assertThat(INES.post(other + "/forget", gone).status()).isEqualTo(409);
        assertThat(INES.post(kept + "/forget", gone).status()).isEqualTo(200);
        assertThat(INES.get(kept).body()).doesNotContain("BY HAND 77");
    }

    @ParameterizedTest
    @CsvSource({
        "latin, not written in UTF-8: line 2",
        "line, longer than 60",
        "binary, no text file",
        "quote, quotation mark",
        "grown, a quotation mark is opened before it and not closed",
        "cell, 'more than 10,000 characters'"
    })
    void rejectsAFileThatIsNoSuchTable(String case_, String sentence) {
        byte[] file = switch (case_) {
            case "latin" -> (HEAD + "V1014,Pêche,2026-11-03,1,5300\n").getBytes(StandardCharsets.ISO_8859_1);
            case "line" -> (HEAD + "x".repeat(10_000_000)).getBytes(StandardCharsets.UTF_8);
            case "grown" ->
                (HEAD + "V1014,\"open,2026-11-03,1,5300\n" + "V1014,R,2026-11-03,1,5300\n".repeat(20_000))
                        .getBytes(StandardCharsets.UTF_8);
            case "cell" ->
                (HEAD + "V1014," + "x".repeat(20_000) + ",2026-11-03,1,5300\n").getBytes(StandardCharsets.UTF_8);
            case "binary" -> new byte[] {'P', 'K', 0, 0, 1, 2};
            default -> (HEAD + "V1014,\"open,2026-11-03,1,5300\n").getBytes(StandardCharsets.UTF_8);
        };
        JsonNode job = sent("INVOICES", file);
        assertThat(job.get("state").asString()).isEqualTo("FAILED");
        assertThat(job.get("trouble").asString()).contains(sentence);
    }

    /** A process that died in the middle: whoever finds the job silent goes on, and nothing comes in twice. */
    @Test
    void anotherProcessGoesOnWithASilentJob() {
        StringBuilder text = new StringBuilder(HEAD);
        for (int i = 0; i < 1_300; i++) {
            text.append("V1014,LOT-").append(i).append(",2026-11-03,1.00,5300\n");
        }
        JsonNode job = csv(text.toString());
        assertThat(counts(job)).isEqualTo("CHECKED 1300 good 0 refused 0 duplicates 0 in");
        long id = job.get("id").asLong();
        // as a process leaves it that began to bring it in and then fell silent
        App.jdbc()
                .sql(
                        "UPDATE import_job SET state = 'BRINGING', lease_token = 'gone', lease_until = NOW(6) WHERE id = ?")
                .param(id)
                .update();
        assertThat(counts(settled(id))).isEqualTo("DONE 1300 good 0 refused 0 duplicates 1300 in");
        assertThat(App.number("SELECT COUNT(*) FROM invoice WHERE reference LIKE 'LOT-%'"))
                .isEqualTo(1_300);
    }

    /** A row that cannot come in keeps its whole document out, wherever the other rows stand. */
    @Test
    void aDocumentComesInWholeOrNotAtAll() {
        JsonNode job = csv(HEAD
                + "V1014,WHOLE-1,2026-11-03,100.00,5300\n"
                + "V1014,WHOLE-2,2026-11-03,100.00,5300\n"
                + "V1014,WHOLE-3,2026-11-03,100.00,5300\n"
                + "V1014,WHOLE-4,2026-11-03,100.00,5300\n"
                + "V1014,WHOLE-1,2026-11-03,-30.00,5300\n"
                + "V1014,WHOLE-2,2026-11-03,20.00,9999\n"
                + "V1014,WHOLE-3,2026-11-04,20.00,5300\n"
                + "V1014,WHOLE-4,2026-11-03,-100.00,5300\n");
        assertThat(counts(job)).isEqualTo("CHECKED 2 good 6 refused 0 duplicates 0 in");
        String refused = INES.get("/api/imports/" + job.get("id").asLong() + "/rows?outcome=REFUSED")
                .body();
        assertThat(refused)
                .contains("row 7 of the same document is refused")
                .contains("differs between the lines")
                .contains("its lines come to 0.00");
        assertThat(counts(bringIn(job, true))).startsWith("DONE");
        assertThat(App.jdbc()
                        .sql("SELECT CONCAT(reference, ' ', amount_minor) FROM invoice WHERE reference LIKE 'WHOLE-%'")
                        .query(String.class)
                        .list())
                .containsExactly("WHOLE-1 7000");
    }

    @Test
    void everyLinesMarkCountsAndAllOfALongDocumentComesIn() {
        StringBuilder text = new StringBuilder(
                "vendor,reference,invoice_date,amount,account,not_discountable,own_check,terms,due_date\n");
        for (int i = 0; i < 900; i++) {
            String marks = i == 700 ? "1.00,yes,\"2% 10, net 30\",2026-12-24" : i == 800 ? "0.50,,," : ",,,";
            text.append("V1014,LONG-1,2026-11-03,1.00,5300,").append(marks).append('\n');
        }
        assertThat(counts(bringIn(csv(text.toString()), false)))
                .isEqualTo("DONE 900 good 0 refused 0 duplicates 900 in");
        assertThat(App.jdbc()
                        .sql(
                                "SELECT CONCAT_WS(' ', amount_minor, discountable_minor, own_check, due_date, discount_date)"
                                        + " FROM invoice WHERE reference = 'LONG-1'")
                        .query(String.class)
                        .single())
                .isEqualTo("90000 89850 1 2026-12-24 2026-11-13");
    }

    @Test
    void aCommaIsADecimalMarkOnlyWhereSomebodySaysSo() {
        JsonNode job = csv("vendor;reference;invoice_date;amount;account\nV1014;COMMA-1;2026-11-03;1250,00;5300\n");
        assertThat(counts(job)).isEqualTo("CHECKED 0 good 1 refused 0 duplicates 0 in");
        long id = job.get("id").asLong();
        INES.post("/api/imports/" + id + "/choices", "{\"mark\":\"COMMA\"}");
        assertThat(counts(settled(id))).isEqualTo("CHECKED 1 good 0 refused 0 duplicates 0 in");
        assertThat(INES.get("/api/imports/" + id + "/rows?outcome=GOOD").body()).contains("\"amount\":\"1,250.00\"");
        // once more checked, the counters begin anew
        INES.post("/api/imports/" + id + "/choices", "{\"mark\":\"COMMA\"}");
        assertThat(counts(settled(id))).isEqualTo("CHECKED 1 good 0 refused 0 duplicates 0 in");
        bringIn(job, false);
        assertThat(App.number("SELECT amount_minor FROM invoice WHERE reference = 'COMMA-1'"))
                .isEqualTo(125_000);
    }

    /** Who brings a colleague's file in, and who says how it is read, have a hand in it. */
    @Test
    void everyHandOnAFileIsKept() {
        JsonNode job = csv(HEAD + "V1014,HANDS-1,2026-11-03,1.00,5300\n");
        long id = job.get("id").asLong();
        Http tomas = Http.signedIn("tomas");
        tomas.post("/api/imports/" + id + "/bring-in", "{\"onlyGood\":false}");
        settled(id);
        assertThat(App.number("SELECT COUNT(*) FROM import_hand WHERE job_id = ?", id))
                .isEqualTo(2);
        assertThat(App.jdbc()
                        .sql("SELECT p.sign_in FROM journal_entry e JOIN person p ON p.id = e.made_by"
                                + " JOIN invoice i ON i.id = e.invoice_id WHERE i.reference = 'HANDS-1'")
                        .query(String.class)
                        .single())
                .isEqualTo("tomas");
    }

    @Test
    void whatBreaksOffEachTimeIsGivenUp() {
        JsonNode job = csv(HEAD + "V1014,GIVEN-UP,2026-11-03,1.00,5300\n");
        long id = job.get("id").asLong();
        App.asRoot("UPDATE import_job SET state = 'BRINGING', tries = 3, trouble = 'it broke' WHERE id = " + id);
        JsonNode ended = settled(id);
        assertThat(ended.get("state").asString()).isEqualTo("FAILED");
        assertThat(ended.get("trouble").asString()).contains("Given up after 3 tries: it broke");
    }

    /** A sender is known by anything it calls itself; whoever is not is asked for once. */
    @Test
    void whoseDocumentThisIsIsAskedOnceAndRemembered() {
        String unknown = DOCUMENT.replace(
                        "<cbc:CustomerAssignedAccountID>V1014</cbc:CustomerAssignedAccountID>",
                        "<cac:Party><cbc:EndpointID schemeID=\"0088\">7300010000001</cbc:EndpointID><cac:PartyName>"
                                + "<cbc:Name>Bollard Works AS</cbc:Name></cac:PartyName></cac:Party>")
                .replace("UBL-1", "WHOSE-%d");
        JsonNode job = sent("UBL", ubl("Invoice", unknown.formatted(1)).getBytes(StandardCharsets.UTF_8));
        assertThat(counts(job)).isEqualTo("CHECKED 0 good 1 refused 0 duplicates 0 in");
        long id = job.get("id").asLong();
        assertThat(INES.get("/api/imports/" + id + "/senders").body()).contains("Bollard Works AS");
        long vendor = App.vendor("Bollard Foundry").value();
        INES.post("/api/imports/" + id + "/senders", "{\"sender\":0,\"vendor\":" + vendor + "}");
        assertThat(counts(settled(id))).isEqualTo("CHECKED 2 good 0 refused 0 duplicates 0 in");
        JsonNode next = sent("UBL", ubl("Invoice", unknown.formatted(2)).getBytes(StandardCharsets.UTF_8));
        assertThat(counts(next)).isEqualTo("CHECKED 2 good 0 refused 0 duplicates 0 in");
        // in a locked month, one choice on the page dates the whole file
        String old = unknown.formatted(3).replace("2026-11-05", "2026-01-05");
        JsonNode late = sent("UBL", ubl("Invoice", old).getBytes(StandardCharsets.UTF_8));
        assertThat(counts(late)).startsWith("CHECKED 0 good");
        long lateId = late.get("id").asLong();
        INES.post("/api/imports/" + lateId + "/choices", "{\"ledgerDate\":\"2026-11-12\"}");
        assertThat(counts(settled(lateId))).isEqualTo("CHECKED 2 good 0 refused 0 duplicates 0 in");
    }

    @Test
    void moreDocumentsThanThePlatformsUsualComeInOneUpload() {
        byte[][] files = new byte[120][];
        for (int i = 0; i < files.length; i++) {
            files[i] = ubl("Invoice", DOCUMENT.replace("UBL-1", "MANY-" + i)).getBytes(StandardCharsets.UTF_8);
        }
        assertThat(counts(sent("UBL", files))).isEqualTo("CHECKED 240 good 0 refused 0 duplicates 0 in");
    }

    @Test
    void theSampleIsAFileThatIsUnderstood() {
        String sample = INES.get("/api/imports/sample/INVOICES").body();
        JsonNode job = csv(sample.replace("BF-2219", "SAMPLE-1"));
        assertThat(counts(job)).isEqualTo("CHECKED 1 good 0 refused 0 duplicates 0 in");
    }
}
