package leveltally.core.imports;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Which column of a file stands for which of ours.
 *
 * @param places our column's name to the place of the file's column, from 0
 * @param missing required columns that no column of the file stands for
 */
public record Mapping(Map<String, Integer> places, List<String> missing) {

    /**
     * By header name, whatever its case, spaces and hyphens, unless somebody chose another.
     *
     * @param chosen our column's name to the header chosen for it
     */
    public static Mapping of(List<Column> columns, List<String> headers, Map<String, String> chosen) {
        Map<String, Integer> byName = new HashMap<>();
        for (int i = headers.size() - 1; i >= 0; i--) {
            byName.put(plain(headers.get(i)), i);
        }
        Map<String, Integer> places = new HashMap<>();
        for (Column column : columns) {
            String wanted = chosen.getOrDefault(column.name(), column.name());
            Integer place = byName.get(plain(wanted));
            if (place != null) {
                places.put(column.name(), place);
            }
        }
        List<String> missing = columns.stream()
                .filter(column -> column.required() && !places.containsKey(column.name()))
                .map(Column::name)
                .toList();
        return new Mapping(Map.copyOf(places), missing);
    }

    private static String plain(String name) {
        return name.strip().toLowerCase(Locale.ROOT).replaceAll("[\\s_-]+", "_");
    }

    /** The cells of a record by our names; a record that is too short has empty cells. */
    public Map<String, String> cells(List<String> record) {
        Map<String, String> cells = new HashMap<>();
        places.forEach((name, place) ->
                cells.put(name, place < record.size() ? record.get(place).strip() : ""));
        return cells;
    }
}
