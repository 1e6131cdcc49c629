package app.knottag.server.db;

import java.lang.reflect.RecordComponent;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.apache.ibatis.mapping.ResultFlag;
import org.apache.ibatis.mapping.ResultMap;
import org.apache.ibatis.mapping.ResultMapping;
import org.apache.ibatis.session.Configuration;
import org.mybatis.spring.boot.autoconfigure.MybatisProperties;
import org.mybatis.spring.boot.autoconfigure.SqlSessionFactoryBeanCustomizer;
import org.springframework.context.annotation.Bean;

/**
 * Settles once for each statement which column goes to which component of a record: {@code site_id} to {@code siteId}.
 * Left to itself MyBatis looks for them by name again for every row, which takes most of the time of a long list.
 */
@org.springframework.context.annotation.Configuration
class RecordColumns {

    @Bean
    SqlSessionFactoryBeanCustomizer columnsOnce(MybatisProperties properties) {
        return factory -> {
            var configuration = new Spelled();
            if (properties.getConfiguration() != null)
                properties.getConfiguration().applyTo(configuration);
            factory.setConfiguration(configuration);
        };
    }

    private static final class Spelled extends Configuration {

        @Override
        public void addResultMap(ResultMap map) {
            Class<?> type = map.getType();
            boolean found = type.isRecord()
                    && map.getResultMappings().isEmpty()
                    && !getTypeHandlerRegistry().hasTypeHandler(type);
            super.addResultMap(found ? spelled(map) : map);
        }

        private ResultMap spelled(ResultMap map) {
            var mappings = Stream.of(map.getType().getRecordComponents())
                    .map(this::mapping)
                    .toList();
            return new ResultMap.Builder(this, map.getId(), map.getType(), mappings, map.getAutoMapping()).build();
        }

        private ResultMapping mapping(RecordComponent c) {
            String column = c.getName().replaceAll("([A-Z])", "_$1").toLowerCase(Locale.ROOT);
            return new ResultMapping.Builder(this, c.getName(), column, c.getType())
                    .flags(List.of(ResultFlag.CONSTRUCTOR))
                    .build();
        }
    }
}
