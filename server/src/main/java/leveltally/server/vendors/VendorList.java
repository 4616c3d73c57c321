package leveltally.server.vendors;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Every vendor that is not another by now, with what is open. */
@Component
class VendorList {
    static final List<String> COLUMNS = List.of(
            "number", "name", "group", "priority", "method", "currency", "terms", "address", "postal_code", "held");
    private static final int PAGE = 200;
    private static final String WHICH = """
            WHERE (v.name LIKE :like OR v.number LIKE :like) AND (:group IS NULL OR v.vendor_group = :group)
              AND v.merged_into_id IS NULL
            """;

    private final JdbcClient jdbc;

    VendorList(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * Which vendors, and in which order.
     *
     * @param text their name or number holds it
     * @param sortedBy null: by name
     */
    record Asked(
            @Nullable String text,
            @Nullable String group,
            @Nullable VendorOrder sortedBy,
            @Nullable Boolean descending) {
        private Map<String, Object> params() {
            String plain = text == null ? "" : text;
            String like = "%" + plain.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
            var params = new java.util.HashMap<String, Object>();
            params.put("like", like);
            params.put("group", group == null || group.isBlank() ? null : group);
            return params;
        }

        private String order() {
            return (sortedBy == null ? VendorOrder.NAME : sortedBy).sql(Boolean.TRUE.equals(descending));
        }
    }

    /** A page of them, from a place on. */
    @Transactional(readOnly = true)
    List<ListedVendor> page(Asked asked, int from) {
        List<ListedVendor> page = jdbc.sql("""
                        SELECT v.id, v.number, v.name, v.vendor_group, v.priority, v.method, v.hold_reason, v.currency,
                          (SELECT COUNT(*) FROM invoice i
                            WHERE i.vendor_id = v.id AND i.is_open = 1 AND i.kind = 'INVOICE') AS open_count,
                          (SELECT COALESCE(SUM(i.open_minor), 0) FROM invoice i WHERE i.vendor_id = v.id
                            AND i.is_open = 1 AND i.kind = 'INVOICE' AND i.currency = v.currency) AS open_minor
                        FROM vendor v %s ORDER BY %s LIMIT :from, :page
                        """.formatted(WHICH, asked.order()))
                .params(asked.params())
                .param("from", from)
                .param("page", PAGE)
                .query((r, n) -> listed(r))
                .list();
        addOthers(page);
        return page;
    }

    /** What is owed in other currencies than the usual one. */
    private void addOthers(List<ListedVendor> page) {
        Map<Long, ListedVendor> byId = page.stream().collect(Collectors.toMap(ListedVendor::id, one -> one));
        if (!byId.isEmpty()) {
            jdbc.sql("""
                            SELECT i.vendor_id, i.currency, SUM(i.open_minor) AS open_minor FROM invoice i
                            JOIN vendor v ON v.id = i.vendor_id AND v.currency <> i.currency
                            WHERE i.vendor_id IN (:ids) AND i.is_open = 1 AND i.kind = 'INVOICE'
                            GROUP BY i.vendor_id, i.currency ORDER BY i.currency
                            """).param("ids", byId.keySet()).query((ResultSet r) -> {
                byId.get(r.getLong("vendor_id"))
                        .open()
                        .add(MoneyView.of(r.getLong("open_minor"), r.getString("currency")));
            });
        }
    }

    private static ListedVendor listed(ResultSet r) throws SQLException {
        return new ListedVendor(
                r.getLong("id"),
                r.getString("number"),
                r.getString("name"),
                r.getString("vendor_group"),
                r.getInt("priority"),
                PaymentMethod.valueOf(r.getString("method")).words(),
                orNothing(r.getString("hold_reason")),
                r.getInt("open_count"),
                new ArrayList<>(List.of(MoneyView.of(r.getLong("open_minor"), r.getString("currency")))));
    }

    /** The same vendors as rows of the columns they are brought in by. */
    Stream<List<String>> rows(Asked asked) {
        return jdbc
                .sql("""
                        SELECT v.number, v.name, v.vendor_group, v.priority, v.method, v.currency, v.terms_rule, v.terms_days,
                          v.terms_cut_off_day, v.discount_rate, v.discount_days, t.address, t.postal_code, v.hold_reason,
                          0 AS open_count, 0 AS open_minor
                        FROM vendor v JOIN remit_to t ON t.id = (SELECT MIN(x.id) FROM remit_to x WHERE x.vendor_id = v.id)
                        %s ORDER BY %s
                        """.formatted(WHICH, asked.order()))
                .params(asked.params())
                .query((r, n) -> List.of(
                        r.getString("number"),
                        r.getString("name"),
                        r.getString("vendor_group"),
                        r.getString("priority"),
                        PaymentMethod.valueOf(r.getString("method")).words(),
                        r.getString("currency"),
                        terms(r).inWords(),
                        r.getString("address").replace("\n", "; "),
                        r.getString("postal_code"),
                        orNothing(r.getString("hold_reason"))))
                .list()
                .stream();
    }

    private static Terms terms(ResultSet r) throws SQLException {
        return new Terms(
                Terms.Rule.valueOf(r.getString("terms_rule")),
                r.getInt("terms_days"),
                r.getObject("terms_cut_off_day", Integer.class),
                r.getBigDecimal("discount_rate"),
                r.getInt("discount_days"));
    }

    private static String orNothing(@Nullable String text) {
        return text == null ? "" : text;
    }
}
