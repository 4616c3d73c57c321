package leveltally.server.printing;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import leveltally.core.DateStyle;
import leveltally.core.batches.Stub;
import leveltally.core.money.Money;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Picture;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.payments.PaymentId;
import leveltally.server.paper.Layouts;
import leveltally.server.paper.PaperLayout;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * What stands on each document, kept as it was printed: a copy is drawn from this and never from today's company, account
 * or vendor. It holds no account number, because only the MICR line has one.
 */
@Component
class Contents {
    /** The layout that is there before anybody made one, as it is written; and what was written before it had an address. */
    private static final String STANDARD = "letter-2";

    private static final String WITHOUT_ADDRESS = "letter-1";

    private final JdbcClient jdbc;
    private final JdbcTemplate many;
    private final JsonMapper json;
    private final Layouts layouts;

    Contents(JdbcClient jdbc, JdbcTemplate many, JsonMapper json, Layouts layouts) {
        this.layouts = layouts;
        this.jdbc = jdbc;
        this.many = many;
        this.json = json;
    }

    /** The text of a document, and the layout it was laid out on. */
    record Kept(CheckText text, CheckLayout layout) {}

    /** Keeps what documents say that were just written. */
    void keep(PaperLayout on, Map<Long, CheckText> texts) {
        many.batchUpdate(
                "INSERT INTO document_content (document_id, layout, layout_id, content) VALUES (?, ?, ?, ?)",
                texts.entrySet().stream()
                        .map(one -> new Object[] {
                            one.getKey(),
                            on.id() == null ? STANDARD : null,
                            on.id(),
                            json.writeValueAsString(Content.of(one.getValue()))
                        })
                        .toList());
    }

    /** Keeps what payments without paper say. */
    void keepPaperless(Map<PaymentId, CheckText> texts) {
        many.batchUpdate(
                "INSERT INTO payment_content (payment_id, content) VALUES (?, ?)",
                texts.entrySet().stream()
                        .map(one ->
                                new Object[] {one.getKey().value(), json.writeValueAsString(Content.of(one.getValue()))
                                })
                        .toList());
    }

    /** By payment without paper, in the order of their ids; others are missing. */
    Map<PaymentId, CheckText> paperless(Collection<PaymentId> payments) {
        Map<PaymentId, CheckText> found = new LinkedHashMap<>();
        if (!payments.isEmpty()) {
            jdbc.sql(
                            "SELECT payment_id, content FROM payment_content WHERE payment_id IN (:payments) ORDER BY payment_id")
                    .param("payments", payments.stream().map(PaymentId::value).toList())
                    .query((java.sql.ResultSet r) -> {
                        found.put(
                                new PaymentId(r.getLong("payment_id")),
                                json.readValue(r.getString("content"), Content.class)
                                        .text());
                    });
        }
        return found;
    }

    /** By document; two statements. */
    Map<Long, Kept> of(Collection<Long> documents) {
        Map<Long, Row> rows = new HashMap<>();
        if (!documents.isEmpty()) {
            jdbc.sql(
                            "SELECT document_id, layout, layout_id, content FROM document_content WHERE document_id IN (:documents)")
                    .param("documents", documents)
                    .query((java.sql.ResultSet r) -> {
                        rows.put(
                                r.getLong("document_id"),
                                new Row(
                                        r.getString("layout"),
                                        r.getObject("layout_id", Long.class),
                                        r.getString("content")));
                    });
        }
        Map<Long, CheckLayout> known = layouts.of(rows.values().stream()
                .map(Row::version)
                .filter(Objects::nonNull)
                .collect(Collectors.toSet()));
        Map<Long, Kept> found = new HashMap<>();
        rows.forEach((document, row) -> found.put(
                document,
                new Kept(
                        json.readValue(row.content(), Content.class).text(),
                        row.version() == null
                                ? standard(row.layout())
                                : Objects.requireNonNull(known.get(row.version())))));
        return found;
    }

    private record Row(@Nullable String layout, @Nullable Long version, String content) {}

    private static CheckLayout standard(@Nullable String layout) {
        return WITHOUT_ADDRESS.equals(layout) ? StandardLayouts.LETTER_WITHOUT_ADDRESS : StandardLayouts.LETTER;
    }

    /** As it is written; addresses with their lines joined, amounts in minor units of the one currency. */
    private record Content(
            String company,
            String companyAddress,
            String bank,
            String currencyWord,
            String validity,
            String payee,
            String address,
            String currency,
            long amountMinor,
            LocalDate checkDate,
            @Nullable Long number,
            String note,
            int entries,
            List<Row> rows,
            @Nullable Logo logo,
            @Nullable Long secondAboveMinor,
            @Nullable DateStyle dates,
            @Nullable String called) {

        /** By its id, with its proportion. */
        private record Logo(long picture, double width, double height) {
            static @Nullable Logo of(@Nullable Picture logo) {
                return logo == null ? null : new Logo(logo.id(), logo.width(), logo.height());
            }
        }

        private record Row(
                String reference, @Nullable LocalDate date, long settlesMinor, long discountMinor, long paidMinor) {}

        static Content of(CheckText text) {
            return new Content(
                    text.payer().company(),
                    String.join("\n", text.payer().address()),
                    text.payer().bank(),
                    text.payer().currencyWord(),
                    text.payer().validity(),
                    text.payee(),
                    String.join("\n", text.address()),
                    text.amount().currency().getCurrencyCode(),
                    text.amount().minor(),
                    text.checkDate(),
                    text.number(),
                    text.stub().note(),
                    text.stub().entries(),
                    text.stub().rows().stream()
                            .map(row -> new Row(
                                    row.reference(),
                                    row.date(),
                                    row.settles().minor(),
                                    row.discount().minor(),
                                    row.paid().minor()))
                            .toList(),
                    Logo.of(text.payer().logo()),
                    text.payer().secondAbove() == null
                            ? null
                            : text.payer().secondAbove().minor(),
                    text.dates(),
                    text.called().isEmpty() ? null : text.called());
        }

        CheckText text() {
            return new CheckText(
                    new CheckText.Payer(
                            company,
                            lines(companyAddress),
                            bank,
                            currencyWord,
                            validity,
                            logo == null ? null : new Picture(logo.picture(), logo.width(), logo.height()),
                            secondAboveMinor == null ? null : money(secondAboveMinor)),
                    payee,
                    lines(address),
                    money(amountMinor),
                    checkDate,
                    number,
                    new Stub(
                            rows.stream()
                                    .map(row -> new Stub.Row(
                                            row.reference,
                                            row.date,
                                            money(row.settlesMinor),
                                            money(row.discountMinor),
                                            money(row.paidMinor)))
                                    .toList(),
                            note,
                            entries),
                    dates,
                    called == null ? "" : called);
        }

        private Money money(long minor) {
            return Money.ofMinor(minor, currency);
        }

        private static List<String> lines(String joined) {
            return joined.isEmpty() ? List.of() : List.of(joined.split("\n"));
        }
    }
}
