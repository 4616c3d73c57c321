package leveltally.server.vendors;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import leveltally.core.DateStyle;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.VendorId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What vendors wish of the papers that go with their payments. */
@Service
public class VendorPapers {
    private final JdbcClient jdbc;

    VendorPapers(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** One statement, whatever their number. */
    @Transactional(readOnly = true)
    public Map<VendorId, Paperwork> of(Collection<VendorId> vendors) {
        Map<VendorId, Paperwork> wishes = new HashMap<>();
        if (!vendors.isEmpty()) {
            jdbc.sql("SELECT id, advice, email, check_delivery, date_style FROM vendor WHERE id IN (:vendors)")
                    .param(
                            "vendors",
                            vendors.stream().map(VendorId::value).distinct().toList())
                    .query((java.sql.ResultSet r) -> {
                        String dates = r.getString("date_style");
                        wishes.put(
                                new VendorId(r.getLong("id")),
                                new Paperwork(
                                        Advice.valueOf(r.getString("advice")),
                                        r.getString("email"),
                                        Delivery.valueOf(r.getString("check_delivery")),
                                        dates == null ? null : DateStyle.valueOf(dates)));
                    });
        }
        return wishes;
    }
}
