package leveltally.server.demo;

import java.util.List;
import leveltally.core.terms.Terms;
import org.jspecify.annotations.Nullable;

/** Whom the made-up ferry company buys from. */
final class DemoVendors {
    /**
     * @param prefix how its references start; {@code usual} its usual amount in whole units of its currency
     */
    record Seed(
            String name,
            String group,
            int priority,
            Terms terms,
            String currency,
            String prefix,
            int usual,
            String town) {}

    private static final Terms NET_30 = Terms.net(30);
    private static final Terms NET_15 = Terms.net(15);
    private static final Terms TWO_TEN = Terms.net(30).withDiscount("2", 10);
    private static final Terms ONE_TEN_45 = Terms.net(45).withDiscount("1", 10);
    private static final Terms MONTH_END = Terms.netAfterMonthEnd(10);
    private static final Terms FIFTEENTH = Terms.dayOfNextMonth(15, 25);

    static final String OVERFLOW = "Sandpiper Galley Provisions";
    static final String CREDITS = "Wrack Line Waste";
    static final String HELD = "Limpet Crane Hire";
    static final String NEW = "Moonraker Sailmakers";
    static final String NO_BANK_DETAILS = "Færingstrand Navigasjon";
    static final List<String> TWO_ADDRESSES = List.of("Guillemot Engine Parts", "Sandpiper Galley Provisions");
    static final String NEW_BANK_DETAILS = "Turnstone Security";
    static final String ONE_TIME = "Storm Petrel Salvage";
    static final List<String> NEVER_PAID = List.of(NEW, ONE_TIME);
    static final String SUSPICIOUS = "Gannet Rope Walk";

    static final List<Seed> ALL = List.of(
            usd("Oakum & Pitch Chandlery", "Chandlery", 2, TWO_TEN, "OP-", 1200),
            usd("Saltmarsh Marine Fuels", "Fuel", 1, NET_15, "SMF-", 6100),
            usd("Gannet Rope Walk", "Chandlery", 3, NET_30, "GRW ", 1400),
            usd("Dunlin Raft & Davit", "Yard & engine", 2, NET_30, "DRD", 2600),
            usd("Skerrow Harbour Authority", "Harbour dues", 1, FIFTEENTH, "00", 3300),
            usd("Petrel Radio Service", "Yard & engine", 3, NET_30, "PR-", 1100),
            usd("Sandpiper Galley Provisions", "Galley", 2, NET_15, "SGP", 310),
            usd("Tern & Daughters Diesel Works", "Yard & engine", 1, NET_30, "TD-", 4900),
            usd("Kittiwake Uniforms", "Crew services", 4, NET_30, "KU/", 380),
            usd("Blackwater Dry Dock", "Yard & engine", 1, TWO_TEN, "BDD-", 15000),
            usd("Fathom Survey Partners", "Office", 3, TWO_TEN, "FS-", 1250),
            usd("Ebb Tide Linen", "Galley", 4, NET_15, "24-", 420),
            usd("Lanternlight Electric", "Harbour dues", 1, MONTH_END, "LE", 2100),
            usd("Bollard Foundry", "Yard & engine", 3, NET_30, "BF-", 2480),
            usd("Wrack Line Waste", "Harbour dues", 4, NET_30, "W-", 380),
            usd("Cormorant Paint Mill", "Chandlery", 3, ONE_TEN_45, "CP-", 860),
            usd("Limpet Crane Hire", "Yard & engine", 3, NET_30, "LCH-", 1750),
            usd("Moonraker Sailmakers", "Chandlery", 4, NET_30, "MS", 990),
            usd("Halyard Office Supply", "Office", 5, NET_30, "HO-", 140),
            usd("Guillemot Engine Parts", "Yard & engine", 2, TWO_TEN, "GEP-", 3150),
            usd("Spindrift Laundry", "Galley", 4, NET_15, "SL ", 265),
            usd("Razorbill Printing House", "Office", 5, NET_30, "RP", 610),
            usd("Kelp & Barley Bakehouse", "Galley", 2, NET_15, "KB-", 540),
            usd("Turnstone Security", "Crew services", 3, MONTH_END, "TS-", 1980),
            usd("Puffin Point Water", "Harbour dues", 2, FIFTEENTH, "PPW", 720),
            usd("Anchor & Thistle Insurance Brokers", "Office", 1, NET_30, "ATI-", 8800),
            usd("Seapink Florists", "Office", 5, NET_30, "SF", 95),
            usd("Barnacle Hull Cleaning", "Yard & engine", 3, TWO_TEN, "BHC-", 3700),
            usd("Dogwatch Crewing", "Crew services", 1, NET_15, "DW-", 7200),
            usd("Skua Ticket Systems", "Office", 2, NET_30, "STS-", 2350),
            usd("Shearwater Uniform Laundry and Repair of Skerrow Old Town", "Crew services", 4, NET_30, "SUL-", 330),
            usd("Capstan Hydraulics", "Yard & engine", 2, ONE_TEN_45, "CH-", 2890),
            usd("Mooring Line Insurance Mutual", "Office", 1, MONTH_END, "MLI", 5400),
            usd("Plover Packaging", "Galley", 4, NET_30, "PL-", 450),
            usd("Redshank Refrigeration", "Galley", 3, TWO_TEN, "RR-", 1660),
            usd("Bittern Bilge Services", "Yard & engine", 3, NET_30, "BBS", 1320),
            usd("Coaming Timber", "Yard & engine", 4, NET_30, "CT-", 1890),
            usd("Eider Down Bedding", "Crew services", 5, NET_30, "ED-", 520),
            usd("Fairlead Training", "Crew services", 3, NET_30, "FT-", 1450),
            usd("Grebe Instruments", "Yard & engine", 2, TWO_TEN, "GI-", 2240),
            usd("Heron Street Stationers", "Office", 5, NET_30, "HSS", 120),
            usd("Ironwrack Chain", "Chandlery", 3, NET_30, "IC-", 2700),
            usd("Jackstay Rigging", "Chandlery", 2, TWO_TEN, "JR-", 1980),
            usd("Knot & Splice", "Chandlery", 4, NET_15, "KS", 210),
            usd("Longshore Haulage", "Harbour dues", 3, NET_30, "LH-", 870),
            usd("Merganser Medical", "Crew services", 1, NET_15, "MM-", 640),
            usd("Nightjar Cleaning", "Crew services", 3, MONTH_END, "NC-", 1180),
            usd("Osprey Flow Meters", "Fuel", 2, NET_30, "OFM-", 1540),
            usd("Pelorus Charts", "Office", 3, NET_30, "PC-", 260),
            usd("Quayside Canteen Equipment", "Galley", 3, NET_30, "QCE", 1390),
            usd("Rudderstock Bearings", "Yard & engine", 1, TWO_TEN, "RB-", 4350),
            usd("Sextant Accounting", "Office", 2, NET_30, "SA-", 2900),
            usd("Topsail Coffee Roasters", "Galley", 3, NET_15, "TCR", 380),
            usd("Undertow Diving", "Yard & engine", 2, NET_15, "UD-", 2650),
            usd("Storm Petrel Salvage", "Crew services", 3, NET_15, "SPS-", 2875),
            usd("Whimbrel Lubricants", "Fuel", 2, ONE_TEN_45, "WL-", 3300),
            eur("Île de Gorse Pêcheries", "Galley", 2, NET_30, "IG-", 1750),
            eur("Werft Köhlersand", "Yard & engine", 1, TWO_TEN, "WK-", 9200),
            eur("Señal Náutica Brisa", "Yard & engine", 3, NET_30, "SN-", 1330),
            eur("Færingstrand Navigasjon", "Office", 3, NET_30, "FN-", 880),
            eur("Bracken Isle Ferries Pool", "Harbour dues", 2, NET_30, "BI-", 2600));

    private DemoVendors() {}

    private static Seed usd(String name, String group, int priority, Terms terms, String prefix, int usual) {
        return new Seed(name, group, priority, terms, "USD", prefix, usual, "Skerrow");
    }

    private static Seed eur(String name, String group, int priority, Terms terms, String prefix, int usual) {
        return new Seed(name, group, priority, terms, "EUR", prefix, usual, "Port Gorse");
    }

    static @Nullable Seed named(String name) {
        return ALL.stream().filter(seed -> seed.name().equals(name)).findFirst().orElse(null);
    }
}
