package leveltally.server.bankfiles;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.LayoutField;
import leveltally.core.bankfiles.LayoutField.Characters;
import leveltally.core.bankfiles.LayoutField.Substitutions;
import leveltally.core.bankfiles.LayoutRecord;
import leveltally.core.bankfiles.Shape;
import leveltally.core.bankfiles.Source;
import tools.jackson.core.JacksonException;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A layout of a bank's file as JSON, as it is kept and taken from one installation to another; {@code docs/formats.md}
 * describes it. What was kept before there was more than one kind of detail is read as what it says.
 */
final class BankLayoutFile {
    static final String FORMAT = "level-tally bank layout 1";
    private static final int LONGEST_NAME = 80;
    private static final Pattern MISSING = Pattern.compile("^Missing creator property '([^']+)'");

    private BankLayoutFile() {}

    /** What is kept; {@code separator} is empty for records of fixed widths. */
    private record Kept(
            String format,
            String name,
            Layout.Use use,
            String encoding,
            boolean byteOrderMark,
            Layout.LineEnd lineEnd,
            String separator,
            String quote,
            Shape.Quoting quoting,
            Shape.Escape escape,
            String fileName,
            List<LayoutRecord> records) {}

    /** The same, to be read and changed by people. */
    static String typed(Layout layout, JsonMapper json) {
        return json.writerWithDefaultPrettyPrinter().writeValueAsString(kept(layout));
    }

    static String write(Layout layout, JsonMapper json) {
        return json.writeValueAsString(kept(layout));
    }

    private static Kept kept(Layout layout) {
        Shape.Delimited by = layout.shape() instanceof Shape.Delimited delimited ? delimited : null;
        return new Kept(
                FORMAT,
                layout.name(),
                layout.use(),
                layout.encoding(),
                layout.byteOrderMark(),
                layout.lineEnd(),
                by == null ? "" : String.valueOf(by.separator()),
                by == null ? "" : String.valueOf(by.quote()),
                by == null ? Shape.Quoting.NEVER : by.quoting(),
                by == null ? Shape.Escape.NONE : by.escape(),
                layout.fileName(),
                layout.records());
    }

    /**
     * A layout as somebody typed it or brought it in.
     *
     * @throws Refusal naming the line where it cannot be read
     */
    static Layout read(JsonMapper json, String typed) {
        JsonMapper strict = json.rebuild()
                .enable(DeserializationFeature.FAIL_ON_MISSING_CREATOR_PROPERTIES)
                .enable(DeserializationFeature.FAIL_ON_NULL_CREATOR_PROPERTIES)
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .build();
        try {
            Kept kept = strict.readValue(withItsUse(strict.readTree(typed), typed), Kept.class);
            if (!kept.format().equals(FORMAT)) {
                throw unreadable("its format is not “" + FORMAT + "”");
            }
            boolean delimited = !kept.separator().isEmpty();
            if (delimited && (kept.separator().length() != 1 || kept.quote().length() != 1)) {
                throw unreadable("a separator and a quote are one character each");
            }
            if (kept.name().isBlank() || kept.name().length() > LONGEST_NAME) {
                throw unreadable("its name is missing, or longer than " + LONGEST_NAME + " characters");
            }
            return read(strict.writeValueAsString(kept), strict);
        } catch (JacksonException broken) {
            TokenStreamLocation at = broken.getLocation();
            throw unreadable((at == null || at.getLineNr() < 1 ? "" : "line " + at.getLineNr() + ": ") + why(broken));
        }
    }

    /** Which part it is that cannot be read. */
    private static String why(JacksonException broken) {
        Matcher missing = MISSING.matcher(broken.getOriginalMessage());
        if (missing.find()) {
            return "“" + missing.group(1) + "” is missing";
        }
        String part = broken.getPath().stream()
                .map(JacksonException.Reference::getPropertyName)
                .filter(name -> name != null)
                .reduce((first, last) -> last)
                .orElse("");
        return part.isEmpty()
                ? "it is not written as JSON there"
                : "“" + part + "” is none of the parts a layout has, or holds what it cannot hold";
    }

    private static Refusal unreadable(String why) {
        return Refusal.invalidField("layout-unreadable", "text", "This is no layout of a bank's file: " + why + ".");
    }

    static Layout read(String text, JsonMapper json) {
        JsonNode tree = json.readTree(text);
        if (!tree.has("format")) {
            return first(tree);
        }
        Kept kept = json.readValue(withItsUse(tree, text), Kept.class);
        Shape shape = kept.separator().isEmpty()
                ? new Shape.Fixed()
                : new Shape.Delimited(
                        kept.separator().charAt(0), kept.quote().charAt(0), kept.quoting(), kept.escape());
        return new Layout(
                kept.name(),
                kept.use(),
                kept.encoding(),
                kept.byteOrderMark(),
                kept.lineEnd(),
                shape,
                kept.fileName(),
                kept.records());
    }

    /** What says nothing of its use was written when there was but one; its lines stay where they are. */
    private static String withItsUse(JsonNode tree, String text) {
        return tree.has("use")
                ? text
                : text.replaceFirst("\\{", "{\"use\": \"" + Layout.Use.POSITIVE_PAY.name() + "\",");
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
