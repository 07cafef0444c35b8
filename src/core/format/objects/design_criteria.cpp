#include "core/objects/design_criteria.h"
#include "core/format/objects/json_kind.h"
#include "core/format/route_files.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<DesignCriteria>::write(const DesignCriteria& p, const JsonContext<DesignCriteria>&) {
    return {{"criteria", json::parse(criteriaText(p.criteria))}};
}

template <>
DesignCriteria Json<DesignCriteria>::read(const json& j, const JsonContext<DesignCriteria>&) {
    auto criteria = parseCriteria(j.at("criteria").dump(), {});
    if (!criteria) throw std::runtime_error(criteria.error().text);
    return {std::move(*criteria)};
}

}  // namespace erdwerk::format
