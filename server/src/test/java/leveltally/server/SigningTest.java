package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import javax.imageio.ImageIO;
import leveltally.core.batches.BatchId;
import leveltally.core.printing.Answer;
import leveltally.server.posting.Posting;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.Printers;
import leveltally.server.printing.RunPages;
import leveltally.server.proof.Proof;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDResources;
import org.apache.pdfbox.pdmodel.graphics.PDXObject;
import org.apache.pdfbox.pdmodel.graphics.form.PDFormXObject;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Logo and signature on paper: where they stand, who may see them, and that each use is known. */
class SigningTest {
    private static final JsonMapper JSON = new JsonMapper();
    private static final String SVG = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"40\" height=\"10\">"
            + "<path d=\"M0 0L40 10L0 10Z\"/></svg>";
    private static Http ruth;
    private static String series;

    @BeforeAll
    static void aControllerSaysWhoSigns() throws IOException {
        ruth = Http.signedIn("ruth");
        series = "/api/series/" + App.series();
        assertThat(ruth.post("/api/company/logo", "{\"content\":\"" + base64(SVG) + "\"}")
                        .body())
                .contains("\"dots\":0");
        assertThat(ruth.post(series + "/signature", "{\"content\":\"" + png() + "\",\"upTo\":\"5,000.00\"}")
                        .status())
                .isEqualTo(200);
    }

    @AfterAll
    static void asItWas() {
        ruth.post(series + "/signature/remove", "");
        ruth.post(series + "/limits", "{\"most\":\"\",\"secondAbove\":\"\"}");
        ruth.post("/api/company/logo", "{\"content\":\"\"}");
    }

    private static String base64(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private static String png() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(300, 100, BufferedImage.TYPE_INT_ARGB), "png", bytes);
        return Base64.getEncoder().encodeToString(bytes.toByteArray());
    }

    private static List<PDXObject> pictures(byte[] pdf, int page) throws IOException {
        List<PDXObject> found = new ArrayList<>();
        try (var document = Loader.loadPDF(pdf)) {
            PDResources resources = document.getPage(page).getResources();
            for (COSName name : resources.getXObjectNames()) {
                found.add(resources.getXObject(name));
            }
        }
        return found;
    }

    private static byte[] forThePrinter(long run) {
        CompanyPrinter tray = bean(Printers.class).usable(App.tray());
        return bean(RunPages.class).job(run, tray, App.documents(run)).job().pdf();
    }

    private static String uses(BatchId batch) {
        return App.jdbc()
                .sql("SELECT GROUP_CONCAT(detail) FROM audit_record WHERE deed = 'use signature' AND subject = ?")
                .param("batch " + batch.value())
                .query(String.class)
                .optional()
                .orElse("");
    }

    @Test
    void aSignatureStandsOnWhatThePrinterGetsUpToItsLimitAndEachUseIsKnown() throws IOException {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "41.00"), App.invoice("Pelorus Charts", "5000.01"));
        long first = App.nextNumber();
        long run = App.numbered(batch);
        byte[] pdf = forThePrinter(run);
        assertThat(pictures(pdf, 0)).hasSize(1).allMatch(one -> one instanceof PDImageXObject);
        assertThat(pictures(pdf, 1)).isEmpty();
        assertThat(pictures(bean(RunPages.class).copy(run), 0)).isEmpty();
        assertThat(uses(batch)).isEmpty();
        App.handOver(run);
        assertThat(uses(batch)).contains("\"" + first + "\"").doesNotContain("" + (first + 1));
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** Whoever may read everything, and the database itself, have no picture of it. */
    @Test
    void aSignatureIsSealedAndNotShown() {
        long picture = App.number("SELECT signature_id FROM number_series WHERE id = ?", App.series());
        assertThat(ruth.get("/api/pictures/" + picture, "image/png").status()).isEqualTo(404);
        assertThat(App.number(
                        "SELECT COUNT(*) FROM picture WHERE id = ? AND sealed AND LOCATE('PNG', CONVERT(content USING latin1)) = 0",
                        picture))
                .isEqualTo(1);
        assertThat(Http.signedIn("joss")
                        .post(series + "/signature", "{\"content\":\"\",\"upTo\":\"9\"}")
                        .status())
                .isEqualTo(403);
        assertThat(ruth.post(series + "/signature", "{\"content\":\"\",\"upTo\":\" \"}")
                        .body())
                .contains("Say up to which amount");
        assertThat(ruth.post(series + "/signature", "{\"content\":\"!\",\"upTo\":\"9\"}")
                        .body())
                .contains("did not arrive whole");
    }

    @Test
    void aCheckAboveTheLargestStaysBehindAndOneAboveTheLimitHasTwoLines() {
        assertThat(ruth.post(series + "/limits", "{\"most\":\"6,000.00\",\"secondAbove\":\"1e3\"}")
                        .body())
                .contains("secondAbove");
        assertThat(ruth.post(series + "/limits", "{\"most\":\"6,000.00\",\"secondAbove\":\"5500.00\"}")
                        .status())
                .isEqualTo(200);
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "42.00"), App.invoice("Pelorus Charts", "6000.01"));
        Http clerk = Http.signedIn("ines");
        String state = clerk.get("/api/batches/" + batch.value() + "/printing").body();
        assertThat(state).contains("Pelorus Charts: 6,000.01 is more than a check of this series may be");
        ruth.post(series + "/limits", "{\"most\":\"\",\"secondAbove\":\"5500.00\"}");
        long run = App.numbered(batch);
        App.handOver(run);
        JsonNode page =
                JSON.readTree(clerk.get("/api/documents/" + App.documents(run).get(1) + "/page")
                        .body());
        long lines = 0;
        for (JsonNode rule : page.get("rules")) {
            lines += rule.get("width").asDouble() == 0.6 ? 1 : 0;
        }
        assertThat(lines).isEqualTo(2);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }

    @Test
    void aCopyKeepsTheLogoOfItsDay() throws IOException {
        String layouts = series + "/layouts";
        ObjectNode layout = (ObjectNode) JSON.readTree(ruth.get(layouts).body()).get("layout");
        ObjectNode logo = ((ObjectNode) layout.get("check").get(0)).deepCopy();
        logo.put("says", "LOGO")
                .put("text", "")
                .put("x", 110)
                .put("y", 18)
                .put("width", 30)
                .put("height", 8);
        ((ArrayNode) layout.get("check")).add(logo);
        assertThat(ruth.post(layouts + "/test?printer=" + App.tray().value(), layout.toString())
                        .status())
                .isEqualTo(200);
        ObjectNode wanted = JSON.createObjectNode();
        wanted.set("layout", layout);
        wanted.put("from", "2026-11-12").put("why", "a logo");
        wanted.put(
                "newest", JSON.readTree(ruth.get(layouts).body()).get("newest").asInt());
        assertThat(ruth.post(layouts, wanted.toString()).body()).contains("version");
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "43.00"));
        long run = App.numbered(batch);
        App.handOver(run);
        assertThat(pictures(forThePrinter(run), 0)).hasSize(2).anyMatch(one -> one instanceof PDFormXObject);
        ruth.post("/api/company/logo", "{\"content\":\"" + png() + "\"}");
        assertThat(pictures(bean(RunPages.class).copy(run), 0))
                .hasSize(1)
                .allMatch(one -> one instanceof PDFormXObject);
        JsonNode shown = JSON.readTree(Http.signedIn("ines")
                .get("/api/documents/" + App.documents(run).get(0) + "/page")
                .body());
        long picture = shown.get("pictures").get(0).get("picture").asLong();
        assertThat(Http.signedIn("ines")
                        .get("/api/pictures/" + picture, "image/png")
                        .status())
                .isEqualTo(200);
        ruth.post("/api/company/logo", "{\"content\":\"" + base64(SVG) + "\"}");
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        // the series prints as before for whatever test comes next
        wanted.set(
                "layout",
                JSON.readTree(ruth.get("/api/layouts/standard?page=LETTER&place=TOP&stubs=2")
                        .body()));
        wanted.put("newest", wanted.get("newest").asInt() + 1);
        ruth.post(
                layouts + "/test?printer=" + App.tray().value(),
                wanted.get("layout").toString());
        assertThat(ruth.post(layouts, wanted.toString()).body()).contains("version");
    }
}
