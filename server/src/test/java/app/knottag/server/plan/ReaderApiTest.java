package app.knottag.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.io.IOException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.Type;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import tools.jackson.databind.json.JsonMapper;

class ReaderApiTest {

    private static final String SEGMENT =
            "'segment':{'prefix':'10.44.16.0/24','gateway':'10.44.16.1','pools':[{'from':'10.44.16.100',"
                    + "'to':'10.44.16.199'}]},'taken':['10.44.16.20'],'expected':'10.44.16.57'";
    private final Api api = Running.as(Role.OFFICE);

    @DisplayName("The readers answer with value, notes, findings and slip")
    @ParameterizedTest(name = "{0} {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "address | {'text':'10.44.16.5.7','purpose':'ADDRESS'," + SEGMENT
                        + "} | null | TOO_MANY_GROUPS | ADDED_GROUP",
                "address | {'text':'10.44.16.75','purpose':'ADDRESS'," + SEGMENT + "} | 10.44.16.75 | | SWAPPED",
                "address | {'text':'10.44.16.20','purpose':'ADDRESS'," + SEGMENT
                        + "} | 10.44.16.20 | TAKEN | WRONG_GROUP",
                "address | {'text':'/24','purpose':'MASK','segment':null,'taken':null,'expected':null} | 255.255.255.0 | |",
                "address | {'text':null,'purpose':'GATEWAY'} | null | EMPTY |",
                "mac     | {'text':'0000.5e00.532b','known':null,'expected':null} | 00:00:5E:00:53:2B | |",
                "mac     | {'text':'00005E00532C','known':['00:00:5E:00:53:2B'],'expected':'00:00:5E:00:53:2B'} | "
                        + "00:00:5E:00:53:2C | NEIGHBOUR_INTERFACE | NEIGHBOUR_INTERFACE",
            })
    void answers(String reader, String body, String value, String finding, String slip) {
        var reading =
                api.post("/api/" + reader.strip() + "/read", body).expect(200).json();
        assertThat(reading.propertyNames()).containsExactlyInAnyOrder("value", "notes", "findings", "slip", "usable");
        assertThat(reading.get("value").isNull() ? "null" : reading.get("value").asString())
                .isEqualTo(value);
        assertThat(reading.get("findings").path(0).path("code").asString("")).isEqualTo(finding == null ? "" : finding);
        assertThat(reading.get("slip").path("kind").asString(""))
                .isEqualTo(slip == null || slip.isBlank() ? "" : slip.strip());
    }

    @DisplayName("Which pair of resolvers to take; what is none is refused with its field")
    @Test
    void resolvers() {
        var lead = Running.as(Role.LEAD);
        String asked = "{'site':['%s'],'provider':['198.51.100.3'],'open':['203.0.113.9'],'insideNames':false,"
                + "'outsideAllowed':true}";
        var chosen = lead.post("/api/resolvers/choice", asked, "10.44.16.1")
                .expect(200)
                .json();
        assertThat(chosen.get("resolvers").toString()).isEqualTo("[\"10.44.16.1\",\"203.0.113.9\"]");
        assertThat(chosen.get("reason").asString())
                .isEqualTo("The site's own first, another second, so that one may fail.");
        lead.post("/api/resolvers/choice", asked, "10.44.16.300").refused(422, "group-too-big");
        lead.post("/api/resolvers/choice", asked, "2001:db8::53").refused(422, "not-ipv4");
        api.post("/api/resolvers/choice", asked, "10.44.16.1").refused(403, "not-allowed");
    }

    @Test
    void anIdStandsInPlaceOfTheSpelledOutContext() {
        var lead = Running.as(Role.LEAD);
        long[] site = Running.site(lead);
        long id = Running.till(lead, site, 1);
        assertThat(api.post("/api/address/read", "{'text':'10.7.0.51','purpose':'ADDRESS','segmentId':%d}", site[1])
                        .json()
                        .get("findings")
                        .get(0)
                        .get("code")
                        .asString())
                .isEqualTo("TAKEN");
        assertThat(api.post("/api/address/read", "{'text':'10.7.0.51','purpose':'ADDRESS','endpointId':%d}", id)
                        .json()
                        .get("findings"))
                .isEmpty();
        assertThat(api.post("/api/mac/read", "{'text':'00:00:5E:00:53:01','siteId':%d}", site[0])
                        .json()
                        .get("findings")
                        .get(0)
                        .get("code")
                        .asString())
                .isEqualTo("KNOWN");
        api.post("/api/address/read", "{'text':'1','purpose':'ADDRESS','segmentId':99999}")
                .refused(404, "not-found");
    }

    @Test
    void theCommittedDescriptionIsTheOneServed() throws IOException {
        var json = new JsonMapper();
        var served = json.readTree(api.get("/api/openapi").expect(200).body());
        var committed = Path.of("../docs/openapi.json");
        if (Boolean.getBoolean("knot.openapi.write"))
            Files.writeString(committed, json.writerWithDefaultPrettyPrinter().writeValueAsString(served) + "\n");
        assertThat(json.readTree(Files.readString(committed)).equals(served))
                .as(
                        "docs/openapi.json is what the server says; if not: SERVER_TEST_ARGS=-Dknot.openapi.write=true ./knot test server")
                .isTrue();
    }

    @DisplayName(
            "No two records of the published interface share a name, or one of them would be described by the other")
    @Test
    void everyRecordHasANameOfItsOwn() {
        var records = new HashSet<Class<?>>();
        Running.bean(RequestMappingHandlerMapping.class).getHandlerMethods().values().stream()
                .map(HandlerMethod::getMethod)
                .filter(m -> m.getDeclaringClass().getName().startsWith("app.knottag"))
                .flatMap(m ->
                        Stream.concat(Stream.of(m.getGenericReturnType()), Stream.of(m.getGenericParameterTypes())))
                .forEach(t -> gather(t, records));
        assertThat(records.stream().collect(Collectors.groupingBy(Class::getSimpleName)))
                .allSatisfy((name, classes) -> assertThat(classes).as(name).hasSize(1));
    }

    private static void gather(Type type, Set<Class<?>> records) {
        if (type instanceof ParameterizedType p) {
            gather(p.getRawType(), records);
            for (var inner : p.getActualTypeArguments()) gather(inner, records);
        }
        if (type instanceof Class<?> c && c.isRecord() && records.add(c))
            for (var part : c.getRecordComponents()) gather(part.getGenericType(), records);
    }
}
