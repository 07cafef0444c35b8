#include "core/objects/cloud.h"
#include "core/format/attached.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Cloud>::write(const Cloud& p, const JsonContext<Cloud>& c) {
    json j{{"file", inFolder(p.file, c.folder)},
           {"colouring", colouringName(p.colouring)},
           {"classes", p.filter.classes},
           {"spacing", p.spacing}};
    if (!p.filter.inside.empty()) {
        j["crop"] = json::array();
        for (const auto& corner : p.filter.inside) j["crop"].push_back(place(corner));
    }
    const auto* was = c.before;
    if (was != nullptr && was->cloud == p.cloud && was->file == p.file) {
        j["keeps"] = true;
    } else if (p.classified && p.cloud) {
        std::vector<std::uint8_t> classes(p.cloud->size());
        for (std::size_t i = 0; i < classes.size(); ++i) classes[i] = p.cloud->classOf(i);
        j["classified"] = {{"points", classes.size()}, {"classes", packed(classes)}};
    }
    return j;
}

template <>
Cloud Json<Cloud>::read(const json& j, const JsonContext<Cloud>& c) {
    Cloud out;
    out.file = fromFolder(word(j.at("file")), c.folder);
    out.colouring = fromName(word(j.at("colouring")),
                             std::vector{CloudColouring::Height, CloudColouring::Class,
                                         CloudColouring::Intensity, CloudColouring::Colour},
                             colouringName);
    out.filter.classes = j.at("classes").get<std::vector<std::uint8_t>>();
    out.spacing = figure(j.at("spacing"));
    for (const json& corner : j.value("crop", json::array())) out.filter.inside.push_back(place(corner));
    if (const auto* old = kept(j, c.before)) {
        out.cloud = old->cloud;
        out.problem = old->problem;
        out.classified = old->classified;
        return out;
    }
    auto cloud = attachedCloud(out.file);
    if (!cloud) {
        out.problem = cloud.error().text;
        return out;
    }
    out.cloud = std::move(*cloud);
    if (!j.contains("classified")) return out;
    const auto points = whole(j.at("classified").at("points"));
    if (points != out.cloud->size()) {
        out.problem = "the file changed; what was classified no longer fits it";
        return out;
    }
    const auto classes = unpacked(word(j.at("classified").at("classes")), points);
    if (!classes) throw std::runtime_error(classes.error().text);
    auto shared = std::make_shared<std::uint8_t[]>(points);
    std::copy(classes->begin(), classes->end(), shared.get());
    out.cloud = std::make_shared<const survey::PointCloud>(out.cloud->withClasses(std::move(shared)));
    out.classified = true;
    return out;
}

}  // namespace erdwerk::format
