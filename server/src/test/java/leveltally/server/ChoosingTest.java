package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.Holds;
import leveltally.server.posting.Posting;
import leveltally.server.vendors.Vendors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Choosing what to pay as the screens ask for it, over HTTP and on the real database. */
class ChoosingTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Http INES = Http.signedIn("ines");
    private static final Http TOMAS = Http.signedIn("tomas");
    private static final String FREE = "Whimbrel Lubricants";

    private static String due(String more) {
        return "?account=" + App.operations().value() + "&checkDate=2026-11-13" + more;
    }

    private static JsonNode get(String path) {
        Http.Answer answer = INES.get(path);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    private static String reference(InvoiceId id) {
        return App.jdbc()
                .sql("SELECT reference FROM invoice WHERE id = ?")
                .param(id.value())
                .query(String.class)
                .single();
    }

    private static String where(InvoiceId id, String more) {
        JsonNode answers = get("/api/due/where" + due(more) + "&text=" + reference(id));
        assertThat(answers.size()).isEqualTo(1);
        return answers.get(0).get("words").asString()
                + answers.get(0).get("sentence").asString();
    }

    @Test
    void everyInvoiceIsSomewhere() {
        InvoiceId id = App.invoice(FREE, "61.00");
        assertThat(where(id, "&dueBy=2026-12-31")).isEqualTo("taken: pays 61.00");
        assertThat(where(id, "&dueBy=2026-11-13")).startsWith("not due: due on");
        assertThat(where(id, "&dueBy=2026-12-31&amountFrom=100"))
                .isEqualTo("not asked for: outside a range: open 61.00, not from 100.00");
        assertThat(where(id, "&dueBy=2026-12-31&smallest=100&grouping=INVOICE"))
                .isEqualTo("left out: under the smallest payment");
        assertThat(where(id, "&dueBy=2026-12-31&limit=0")).isEqualTo("left out: beyond the cash line");
        bean(Holds.class).hold(ines(), id, "not delivered");
        assertThat(where(id, "&dueBy=2026-11-13")).isEqualTo("held: left out: held invoice, not delivered");
        bean(Holds.class).release(ines(), id, "it came");
        BatchId batch = App.draft(id);
        assertThat(where(id, "&dueBy=2026-11-13")).isEqualTo("reserved: left out: in another batch, Test batch");
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        InvoiceId paid = App.invoice(FREE, "62.00");
        bean(Posting.class).post(ines(), App.printed(paid));
        assertThat(where(paid, "&dueBy=2026-12-31")).matches("settled by check \\d+ on Fri 13 Nov 2026");
        assertThat(get("/api/due/where" + due("&dueBy=2026-12-31&text=nothing-like-it"))
                        .size())
                .isZero();
        assertThat(INES.get("/api/due/where" + due("&dueBy=2026-12-31&text=")).body())
                .contains("nothing-asked");
    }

    @Test
    void aSentenceIsKeptSharedAndSaysWhatCameOfIt() {
        String question = "{\"account\":" + App.operations().value()
                + ",\"checkDate\":\"friday\",\"dueBy\":\"end of month\",\"out\":\"7001\"}";
        String keep = "{\"name\":\"%s\",\"shared\":%s,\"question\":" + question + "}";
        INES.post("/api/criteria", keep.formatted("mine alone", "false"));
        INES.post("/api/criteria", keep.formatted("for all", "true"));
        String seen = TOMAS.get("/api/criteria").body();
        assertThat(seen).contains("for all").doesNotContain("mine alone").doesNotContain("7001");
        JsonNode mine = get("/api/criteria");
        long id = mine.valueStream()
                .filter(one -> one.get("name").asString().equals("for all"))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
        assertThat(TOMAS.post("/api/criteria/" + id + "/remove", "{}").body()).contains("Only who kept them");
        InvoiceId invoice = App.invoice(FREE, "63.00");
        Http.Answer made = INES.post(
                "/api/batches",
                "{\"name\":\"From kept\",\"note\":\"\",\"expectedCount\":1,\"expectedToPay\":\"63.00\",\"criteria\":"
                        + id
                        + ",\"question\":{\"account\":" + App.operations().value()
                        + ",\"checkDate\":\"friday\",\"dueBy\":\"2000-01-01\",\"in\":\"" + invoice.value() + "\"}}");
        assertThat(made.status()).as(made.body()).isEqualTo(200);
        assertThat(INES.get("/api/criteria").body()).contains("From kept: 1 invoices, 63.00");
        BatchId batch = new BatchId(JSON.readTree(made.body()).get("id").asLong());
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        assertThat(INES.post("/api/criteria/" + id + "/remove", "{}").status()).isEqualTo(200);
    }

    @Test
    void availableCashIsTheSumOfItsLinesAndMovesWithWhatIsBroughtIn() {
        JsonNode before = get("/api/due/cash" + due("&dueBy=2026-12-31"));
        String movement = "{\"date\":\"2026-11-11\",\"text\":\"Freight refund\",\"amount\":\"100.00\"}";
        String path = "/api/bank-accounts/" + App.operations().value() + "/movements";
        assertThat(INES.post(path, movement).status()).isEqualTo(200);
        assertThat(INES.post(path, movement).body()).contains("movement-known");
        JsonNode after = get("/api/due/cash" + due("&dueBy=2026-12-31"));
        assertThat(minor(after.get("available")) - minor(before.get("available")))
                .isEqualTo(10_000);
        long sum = after.get("lines")
                .valueStream()
                .mapToLong(line -> minor(line.get("amount")))
                .sum();
        assertThat(minor(after.get("available"))).isEqualTo(sum);
        // the same sum without the totals kept at the locks
        assertThat(minor(after.get("lines").get(0).get("amount")))
                .isEqualTo(App.number("SELECT SUM(l.debit_minor - l.credit_minor) FROM journal_line l"
                        + " JOIN journal_entry e ON e.id = l.entry_id JOIN ledger_account a ON a.id = l.account_id"
                        + " WHERE a.code = '1010' AND e.ledger_date <= '2026-11-13'"));
        assertThat(INES.post("/api/bank-accounts/" + App.operations().value() + "/floor", "{\"floor\":\"1\"}")
                        .status())
                .isEqualTo(403);
    }

    private static long minor(JsonNode amount) {
        return Long.parseLong(amount.asString().replace(",", "").replace(".", ""));
    }

    @Test
    void aPageOfTheListIsTheListFromThere() {
        JsonNode view = get("/api/due" + due("&dueBy=2026-12-31"));
        assertThat(view.get("order").size()).isEqualTo(view.get("listed").asInt());
        assertThat(view.get("rows").size()).isEqualTo(100);
        JsonNode page = get("/api/due/rows" + due("&dueBy=2026-12-31&from=100"));
        assertThat(page.get(0).get("invoice").asLong())
                .isEqualTo(view.get("order").get(100).asLong());
        JsonNode all = get("/api/due/total" + due("&dueBy=2026-12-31&selected=all"));
        assertThat(all.get("toPay").asString()).isEqualTo(view.get("toPay").asString());
        assertThat(get("/api/due" + due("&dueBy=2026-12-31&days=2026-11-13~2026-11-16&listedBy=VENDOR"))
                        .get("listed")
                        .asInt())
                .isLessThan(view.get("listed").asInt());
    }

    @Test
    void theHorizonTellsTheSameAsTheList() {
        JsonNode horizon = get("/api/due/horizon" + due("&dueBy=2026-11-20&nextRun=2026-11-27&days=30"));
        assertThat(horizon.get("days").size()).isEqualTo(30);
        long late = App.number(
                "SELECT COALESCE(SUM(i.open_minor), 0) FROM invoice i JOIN vendor v ON v.id = i.vendor_id"
                        + " LEFT JOIN reservation r ON r.invoice_id = i.id WHERE i.is_open AND i.kind = 'INVOICE'"
                        + " AND i.currency = 'USD' AND v.method = 'CHECK' AND r.invoice_id IS NULL AND i.due_date < '2026-11-12'");
        assertThat(minor(horizon.get("late"))).isEqualTo(late);
        assertThat(horizon.get("runs").get(0).get("date").asString()).isEqualTo("2026-11-13");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "&dueBy=never",
                "&dueBy=2026-11-20&nextRun=2026-11-13",
                "&dueBy=2026-11-20&priorityFrom=5&priorityTo=1",
                "&dueBy=2026-11-20&amountFrom=ten",
                "&dueBy=2026-11-20&limit=-1",
                "&dueBy=2026-11-20&limit=1.234",
                "&dueBy=2026-11-20&out=1-999999999",
                "&dueBy=2026-11-20&out=;DROP",
                ""
            })
    void rejectsNonsenseInWords(String more) {
        Http.Answer answer = INES.get("/api/due" + due(more));
        assertThat(answer.status()).as(answer.body()).isEqualTo(422);
        assertThat(JSON.readTree(answer.body()).get("detail").asString())
                .endsWith(".")
                .hasSizeGreaterThan(30);
    }

    @Test
    void aVendorsPageAddsUp() {
        long id = App.vendor("Sandpiper Galley Provisions").value();
        JsonNode vendor = get("/api/vendors/" + id);
        JsonNode account = get("/api/vendors/" + id + "/account");
        long open = App.number(
                "SELECT SUM(CASE WHEN kind = 'INVOICE' THEN open_minor ELSE -open_minor END) FROM invoice"
                        + " WHERE vendor_id = ?",
                id);
        assertThat(minor(account.get(0).get("balance"))).isEqualTo(open);
        assertThat(vendor.get("addresses").size()).isEqualTo(2);
        long paid = vendor.get("paid")
                .valueStream()
                .mapToLong(year -> minor(year.get("amount").get("text")))
                .sum();
        assertThat(paid)
                .isEqualTo(App.number(
                        "SELECT SUM(amount_minor) FROM payment WHERE vendor_id = ?"
                                + " AND posted_entry_id IS NOT NULL AND undone_entry_id IS NULL",
                        id));
        for (String show : List.of("OPEN", "RESERVED", "SETTLED", "CREDITS", "PAYMENTS")) {
            get("/api/vendors/" + id + "/account?show=" + show);
        }
        assertThat(INES.get("/api/vendors/" + id + "/account/csv?show=OPEN")
                        .body()
                        .lines()
                        .count())
                .isEqualTo(1 + get("/api/vendors/" + id + "/account?show=OPEN").size());
    }

    @Test
    void anInvoiceEnteredByHandIsPostedOnceAndItsTermsAreShownBefore() {
        long vendor = App.vendor("Fathom Survey Partners").value();
        JsonNode preview =
                get("/api/invoices/preview?vendor=" + vendor + "&invoiceDate=2026-11-05&amounts=1000.00%0A250");
        assertThat(preview.get("total").asString()).isEqualTo("1,250.00");
        assertThat(preview.get("discountDate").asString()).isEqualTo("2026-11-15");
        String entry = "{\"kind\":\"INVOICE\",\"vendor\":" + vendor
                + ",\"reference\":\"HAND-1\",\"invoiceDate\":\"2026-11-05\","
                + "\"notDiscountable\":\"50.00\",\"lines\":[{\"account\":"
                + App.number("SELECT id FROM ledger_account WHERE code = '5600'")
                + ",\"amount\":\"1,250.00\",\"job\":\"dock\"}]}";
        JsonNode entered = JSON.readTree(INES.post("/api/invoices", entry).body());
        assertThat(entered.get("amount").get("text").asString()).isEqualTo("1,250.00");
        assertThat(where(new InvoiceId(entered.get("entry").asLong()), "&dueBy=2026-11-13&nextRun=2026-11-27"))
                .isEqualTo("taken: pays 1,226.00, saving 24.00");
        assertThat(INES.post("/api/invoices", entry).body())
                .contains("known-already")
                .contains("HAND-1");
        assertThat(INES.post("/api/invoices", entry.replace("HAND-1", "HAND-2").replace("1,250.00", "12.345"))
                        .body())
                .contains("more decimals");
        assertThat(INES.post(
                                "/api/invoices",
                                entry.replace("HAND-1", "HAND-3").replace("50.00\",\"lines", "5000\",\"lines"))
                        .body())
                .contains("between 0 and the amount");
        assertThat(INES.post(
                                "/api/invoices",
                                entry.replace("HAND-1", "HAND-4").replaceAll("\"account\":\\d+", "\"account\":5"))
                        .body())
                .contains("no-account");
        assertThat(INES.post("/api/invoices", entry.replace("HAND-1", "HAND-5").replace("2026-11-05", "2026-01-05"))
                        .body())
                .contains("January 2026 is locked");
    }

    @Test
    void everyListIsToBeHadAsCsv() {
        BatchId batch = App.draft(App.invoice(FREE, "64.00"));
        Stream.of(
                        "/api/due/csv" + due("&dueBy=2026-12-31"),
                        "/api/batches/" + batch.value() + "/csv",
                        "/api/vendors/csv",
                        "/api/batches/csv",
                        "/api/checks/csv?series=" + App.series(),
                        "/api/ledger/2026-11/csv")
                .forEach(path -> {
                    Http.Answer answer = INES.get(path);
                    assertThat(answer.status()).isEqualTo(200);
                    assertThat(answer.body()).startsWith("\ufeff");
                });
        bean(Drafting.class).takeOut(ines(), batch, version(batch), Set.of(App.invoiceOf(batch)));
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        assertThat(bean(Vendors.class).named("Whimbrel")).hasSize(1);
    }
}
