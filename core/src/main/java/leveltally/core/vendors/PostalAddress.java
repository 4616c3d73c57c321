package leveltally.core.vendors;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;

/**
 * An address in its parts, to be put together in the order in which the post of its country reads it (as the national
 * operators publish it, Universal Postal Union S42).
 *
 * @param country ISO 3166-1 alpha-2
 * @param street lines above the town
 * @param named whether the country stands in the last line, as for letters from abroad
 */
public record PostalAddress(
        String country, List<String> street, String town, String region, String postalCode, boolean named) {
    private static final Set<String> COUNTRIES = Set.copyOf(Arrays.asList(Locale.getISOCountries()));
    private static final int MOST_LINES = 5;

    /** The lines below the street; T town, R region, P postal code, what stands between two of them with both only. */
    private static final Map<String, List<String>> ORDERS = Map.ofEntries(
            Map.entry("US", List.of("T R P")),
            Map.entry("CA", List.of("T R  P")),
            Map.entry("AU", List.of("T R P")),
            Map.entry("NZ", List.of("T P")),
            Map.entry("SG", List.of("T P")),
            Map.entry("KR", List.of("T P")),
            Map.entry("TH", List.of("T", "R P")),
            Map.entry("GB", List.of("T", "P")),
            Map.entry("ZA", List.of("T", "P")),
            Map.entry("IE", List.of("T", "R", "P")),
            Map.entry("RU", List.of("T", "R", "P")),
            Map.entry("UA", List.of("T", "R", "P")),
            Map.entry("IN", List.of("T P", "R")),
            Map.entry("JP", List.of("T, R P")),
            Map.entry("BR", List.of("T-R", "P")),
            Map.entry("MX", List.of("P T, R")),
            Map.entry("IT", List.of("P T R")),
            Map.entry("ES", List.of("P T", "R")),
            Map.entry("AR", List.of("P T", "R")),
            Map.entry("CN", List.of("P T", "R")),
            Map.entry("TR", List.of("P T/R")));

    /** Most posts of Europe. */
    private static final List<String> USUAL = List.of("P T");

    public PostalAddress {
        country = country.strip().toUpperCase(Locale.ROOT);
        street = street.stream()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        town = town.strip();
        region = region.strip();
        postalCode = postalCode.strip();
        if (!COUNTRIES.contains(country)) {
            throw Refusal.invalidField("no-country", "country", "Choose the country from the list.");
        }
    }

    /**
     * @return one to five lines, as they stand in the window of the envelope
     * @throws Refusal when nothing is typed, or more than there is room for
     */
    public List<String> lines() {
        List<String> lines = new ArrayList<>(street);
        for (String line : ORDERS.getOrDefault(country, USUAL)) {
            String filled = filled(line);
            if (!filled.isEmpty()) {
                lines.add(filled);
            }
        }
        if (named) {
            lines.add(name(country).toUpperCase(Locale.ENGLISH));
        }
        if (lines.size() > MOST_LINES) {
            throw Refusal.invalidField(
                    "address-too-long",
                    "street",
                    "That makes " + lines.size() + " lines, and the window shows " + MOST_LINES
                            + ". Join two lines of the street.");
        }
        return List.copyOf(lines);
    }

    private String filled(String order) {
        StringBuilder line = new StringBuilder();
        StringBuilder between = new StringBuilder();
        for (char part : order.toCharArray()) {
            String said = switch (part) {
                case 'T' -> town;
                case 'R' -> region;
                case 'P' -> postalCode;
                default -> null;
            };
            if (said == null) {
                between.append(part);
            } else if (!said.isEmpty()) {
                line.append(line.isEmpty() ? "" : between).append(said);
                between.setLength(0);
            }
        }
        return line.toString();
    }

    /** A country's name in English. */
    public static String name(String country) {
        return new Locale("", country).getDisplayCountry(Locale.ENGLISH);
    }
}
