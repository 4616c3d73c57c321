package leveltally.server.bankfiles;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.LayoutField;
import leveltally.core.bankfiles.LayoutField.Characters;
import leveltally.core.bankfiles.LayoutField.Substitutions;
import leveltally.core.bankfiles.LayoutRecord;
import leveltally.core.bankfiles.Shape;
import leveltally.core.bankfiles.Source;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A layout of a bank's file as JSON, as it is kept and taken from one installation to another; {@code docs/formats.md}
 * describes it. What was kept before there was more than one kind of detail is read as what it says.
 */
final class BankLayoutFile {
    static final String FORMAT = "level-tally bank layout 1";

    private BankLayoutFile() {}

    /** What is kept; {@code separator} is empty for records of fixed widths. */
    private record Kept(
            String format,
            String name,
            String encoding,
            boolean byteOrderMark,
            Layout.LineEnd lineEnd,
            String separator,
            String quote,
            Shape.@Nullable Quoting quoting,
            Shape.@Nullable Escape escape,
            String fileName,
            List<LayoutRecord> records) {}

    static String write(Layout layout, JsonMapper json) {
        Shape.Delimited by = layout.shape() instanceof Shape.Delimited delimited ? delimited : null;
        return json.writeValueAsString(new Kept(
                FORMAT,
                layout.name(),
                layout.encoding(),
                layout.byteOrderMark(),
                layout.lineEnd(),
                by == null ? "" : String.valueOf(by.separator()),
                by == null ? "" : String.valueOf(by.quote()),
                by == null ? null : by.quoting(),
                by == null ? null : by.escape(),
                layout.fileName(),
                layout.records()));
    }

    static Layout read(String text, JsonMapper json) {
        JsonNode tree = json.readTree(text);
        if (!tree.has("format")) {
            return first(tree);
        }
        Kept kept = json.treeToValue(tree, Kept.class);
        Shape shape = kept.separator().isEmpty() || kept.quoting() == null || kept.escape() == null
                ? new Shape.Fixed()
                : new Shape.Delimited(
                        kept.separator().charAt(0), kept.quote().charAt(0), kept.quoting(), kept.escape());
        return new Layout(
                kept.name(),
                kept.encoding(),
                kept.byteOrderMark(),
                kept.lineEnd(),
                shape,
                kept.fileName(),
                kept.records());
    }

    /** As layouts were kept first: fixed widths, one record each of header, detail and trailer. */
    private static Layout first(JsonNode tree) {
        List<LayoutRecord> records = new ArrayList<>();
        for (LayoutRecord.Place place : LayoutRecord.Place.values()) {
            List<LayoutField> fields = new ArrayList<>();
            tree.get(place.name().toLowerCase(Locale.ROOT)).forEach(field -> fields.add(field(field, fields.size())));
            if (!fields.isEmpty()) {
                records.add(new LayoutRecord(place, LayoutRecord.Tells.BOTH, fields));
            }
        }
        return new Layout(
                tree.get("name").asString(),
                tree.get("encoding").asString(),
                false,
                lineEnd(tree.get("lineEnd").asString()),
                new Shape.Fixed(),
                "positive-pay-{date:yyyy-MM-dd}-{serial}.txt",
                records);
    }

    private static LayoutField field(JsonNode field, int before) {
        String source = field.get("source").asString();
        Map<String, String> substitutions = new java.util.HashMap<>();
        field.get("substitutions")
                .properties()
                .forEach(one -> substitutions.put(one.getKey(), one.getValue().asString()));
        String name = field.get("name").asString();
        return new LayoutField(
                // names were not told apart then
                name.equals("blank") ? name + " " + (before + 1) : name,
                source.equals("DATE") ? Source.EVENT_DATE : Source.valueOf(source),
                field.get("value").asString(),
                field.get("width").asInt(),
                LayoutField.Align.valueOf(field.get("align").asString()),
                field.get("fill").asString().charAt(0),
                field.get("cut").asBoolean(),
                field.get("upperCase").asBoolean() ? LayoutField.Letters.UPPER : LayoutField.Letters.AS_THEY_ARE,
                field.get("impliedDecimals").asBoolean() ? LayoutField.Decimals.IMPLIED : LayoutField.Decimals.POINT,
                LayoutField.Sign.NONE,
                new Substitutions(substitutions, Substitutions.Missing.STAYS, ""),
                Characters.ALL);
    }

    private static Layout.LineEnd lineEnd(String characters) {
        for (Layout.LineEnd one : Layout.LineEnd.values()) {
            if (one.characters().equals(characters)) {
                return one;
            }
        }
        return Layout.LineEnd.CRLF;
    }
}
