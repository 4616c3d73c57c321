package leveltally.server.demo;

import java.util.Map;
import java.util.TreeMap;
import leveltally.core.DateStyle;
import leveltally.core.people.Actor;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.Reportable;
import leveltally.core.vendors.VendorFacts;
import leveltally.core.vendors.VendorId;
import leveltally.server.vendors.VendorRecords;
import org.springframework.stereotype.Component;

/** What some made-up vendors wish of the papers that go with their payments. */
@Component
class DemoWishes {
    private static final Map<String, Paperwork> WISHES = new TreeMap<>(Map.of(
            "Saltmarsh Marine Fuels",
            new Paperwork(Advice.MAIL, "receivables@saltmarsh.example", Delivery.MAIL, null),
            "Anchor & Thistle Insurance Brokers",
            new Paperwork(Advice.BOTH, "accounts@anchorandthistle.example", Delivery.COURIER, null),
            "Tern & Daughters Diesel Works",
            new Paperwork(Advice.PAPER, "", Delivery.HAND_OVER, null),
            DemoVendors.NEW,
            new Paperwork(Advice.PAPER, "", Delivery.MAIL, DateStyle.MONTH_FIRST)));

    /** Whose payments of a year are reported. */
    private static final Map<String, Reportable> REPORTED = Map.of(
            "Tern & Daughters Diesel Works", Reportable.SERVICES,
            "Anchor & Thistle Insurance Brokers", Reportable.OTHER);

    private final VendorRecords records;

    DemoWishes(VendorRecords records) {
        this.records = records;
    }

    void keep(Actor by, Map<String, VendorId> vendors) {
        WISHES.forEach((name, papers) -> {
            VendorId id = vendors.get(name);
            VendorRecords.Kept kept = records.kept(id);
            VendorFacts was = kept.facts();
            records.change(
                    by,
                    id,
                    new VendorFacts(
                            was.name(),
                            was.group(),
                            was.priority(),
                            was.method(),
                            was.terms(),
                            papers,
                            REPORTED.getOrDefault(name, was.reportable())),
                    null,
                    kept.version());
        });
    }
}
