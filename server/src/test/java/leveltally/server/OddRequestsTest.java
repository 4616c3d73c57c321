package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Every address is asked oddly: wrong types, unknown words, no body, odd headers. Nothing of it is an error of ours. */
class OddRequestsTest {
    private static final List<String> ODD =
            List.of("-1", "9223372036854775807", "99999999999999999999", "2026-13-45", " ", "\u0000");
    private static final List<String> BODIES = List.of(
            "",
            "null",
            "[]",
            "{\"version\":\"x\"}",
            "{\"claims\":[null],\"invoices\":[null],\"ids\":[null],\"answers\":[null],\"documents\":[null],\"credits\":[null]}",
            "{\"version\":1e99,\"amount\":\"1E999999\",\"from\":\"never\",\"why\":7,\"note\":{},\"reason\":\"\\u0000\"}",
            "[".repeat(3_000));

    /** A route, and whether it takes a body. */
    private record Route(String path, boolean post) {}

    private static List<Route> routes() {
        JsonNode api = JsonMapper.builder()
                .build()
                .readTree(Http.signedIn("ines").get("/api/openapi").body());
        List<Route> routes = new ArrayList<>();
        for (Map.Entry<String, JsonNode> path : api.get("paths").properties()) {
            for (Map.Entry<String, JsonNode> method : path.getValue().properties()) {
                StringBuilder query = new StringBuilder();
                method.getValue().path("parameters").forEach(parameter -> {
                    if (parameter.get("in").asString().equals("query")) {
                        query.append(query.isEmpty() ? "?" : "&")
                                .append(parameter.get("name").asString())
                                .append("={x}");
                    }
                });
                boolean post = method.getKey().equals("post");
                if (post || method.getKey().equals("get")) {
                    routes.add(new Route(path.getKey() + (post ? "" : query), post));
                }
            }
        }
        assertThat(routes).hasSizeGreaterThan(100);
        return routes;
    }

    @Test
    void noOddRequestIsAnErrorOfOurs() {
        Http http = Http.signedIn("ruth");
        List<String> broken = routes().parallelStream()
                .map(route -> broken(http, route))
                .flatMap(List::stream)
                .toList();
        assertThat(broken).isEmpty();
    }

    private static List<String> broken(Http http, Route route) {
        List<String> broken = new ArrayList<>();
        // one's own session is needed for the rest; the proof reads everything, whatever is asked
        if (route.path().startsWith("/api/session") || route.path().equals("/api/proof")) {
            return broken;
        }
        for (String odd : ODD) {
            String path = route.path().replaceAll("\\{[^}]+}", URLEncoder.encode(odd, StandardCharsets.UTF_8));
            Http.Answer answer = route.post() ? http.post(path, "{}") : http.get(path);
            if (answer.status() >= 500) {
                broken.add(answer.status() + " " + path);
            }
        }
        if (route.post()) {
            for (String body : BODIES) {
                String path = route.path().replaceAll("\\{[^}]+}", "1");
                Http.Answer answer = http.post(path, body);
                if (answer.status() >= 500) {
                    broken.add(
                            answer.status() + " " + path + " with " + body.substring(0, Math.min(40, body.length())));
                }
            }
        } else {
            String path = route.path().replaceAll("\\{[^}]+}", "1");
            for (String accept : List.of("application/json", "text/csv", "image/png", "application/pdf")) {
                Http.Answer answer = http.get(path, accept);
                if (answer.status() >= 500) {
                    broken.add(answer.status() + " " + path + " as " + accept);
                }
            }
        }
        return broken;
    }

    @Test
    void aBodyOfMoreThanAMegabyteIsReadNoFurther() {
        String long1 = "{\"signIn\":\"" + "x".repeat(1 << 20) + "\",\"password\":\"y\"}";
        assertThat(Http.signedIn("ines").post("/api/session", long1).status()).isEqualTo(413);
    }

    @Test
    void noFileIsTakenBeforeSignInWhereverItIsSent() {
        Http nobody = Http.nobody();
        nobody.get("/api/session/door");
        byte[] file = new byte[2 << 20];
        assertThat(nobody.upload("/api/session", file).status()).isEqualTo(413);
        assertThat(nobody.upload("/api/imports?kind=VENDORS", file).status()).isEqualTo(401);
    }
}
