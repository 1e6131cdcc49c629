package app.knottag.server.register;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Free words in which a fact may hide. */
@Mapper
interface ChainStore {

    @Select("select notes from endpoint where id = #{endpointId}")
    String notes(long endpointId);
}
