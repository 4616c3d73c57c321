package leveltally.server.imports;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.vendors.SenderIdentifier;

/** Who sends a document, by all it calls itself, the strongest first. */
record UblParty(String name, List<SenderIdentifier> identifiers) {

    /** Our own number for the vendor, as they were told it. */
    static final String NUMBER = "number";

    static final String ENDPOINT = "endpoint";
    static final String TAX = "tax";
    static final String LEGAL = "legal";
    static final String IDENTIFICATION = "identification";
    static final String ACCOUNT = "account";
    static final String NAME = "name";

    private static final List<String> STRONGEST_FIRST =
            List.of(NUMBER, ENDPOINT, TAX, LEGAL, IDENTIFICATION, ACCOUNT, NAME);

    /** Equal for documents of one sender. */
    String key() {
        return identifiers.toString();
    }

    static UblParty of(String name, Set<SenderIdentifier> found) {
        Set<SenderIdentifier> ordered = new LinkedHashSet<>();
        for (String scheme : STRONGEST_FIRST) {
            found.stream().filter(one -> one.scheme().startsWith(scheme)).forEach(ordered::add);
        }
        return new UblParty(name.substring(0, Math.min(120, name.length())), List.copyOf(ordered));
    }
}
