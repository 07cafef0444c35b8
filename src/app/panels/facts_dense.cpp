// Facts of clouds, rasters and backdrops.

#include <QCheckBox>
#include <QFileInfo>
#include <algorithm>

#include "app/panels/facts.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;

namespace {

QString text(const std::string& s) {
    return QString::fromStdString(s);
}

QString className(std::size_t c) {
    switch (c) {
        case 0:
            return QObject::tr("never classified");
        case 1:
            return QObject::tr("unclassified");
        case 2:
            return QObject::tr("ground");
        case 3:
            return QObject::tr("low vegetation");
        case 4:
            return QObject::tr("medium vegetation");
        case 5:
            return QObject::tr("high vegetation");
        case 6:
            return QObject::tr("building");
        case 7:
            return QObject::tr("low noise");
        case 9:
            return QObject::tr("water");
        case 18:
            return QObject::tr("high noise");
        default:
            return QObject::tr("class %1").arg(c);
    }
}

}  // namespace

void Facts::cloud(ObjectId id) {
    const auto& document = session_.document();
    const auto& display = document.settings().display;
    const auto cloud = *document.get<objects::Cloud>(id);
    heading(text(document.nameOf(id)));
    fact(tr("File"), QFileInfo(text(cloud.file)).fileName());
    if (!cloud.problem.empty()) fact(tr("Problem"), text(cloud.problem));
    if (!cloud.cloud) return;
    const auto& c = *cloud.cloud;
    fact(tr("Points"), QLocale(QLocale::English).toString(static_cast<qulonglong>(c.size())));
    fact(tr("Heights"), text(formatHeight(c.min().z, display) + " to " + formatHeight(c.max().z, display)));
    fact(tr("Spacing"), text(formatFixed(c.spacing(), 3)) + tr(" on average"));
    fact(tr("In memory"), tr("%1 MB").arg(static_cast<double>(c.memory()) / 1e6, 0, 'f', 1));
    const auto edit = [id](const Document& d, const std::function<void(objects::Cloud&)>& change) {
        return document::changed<objects::Cloud>(d, id, change);
    };
    choice(tr("Coloured by"), {tr("height"), tr("class"), tr("intensity"), tr("colour")},
           static_cast<int>(cloud.colouring), [edit](const Document& d, int i) {
               return edit(d,
                           [i](objects::Cloud& x) { x.colouring = static_cast<objects::CloudColouring>(i); });
           });
    number(tr("Show every"), cloud.spacing, 0, [edit](const Document& d, double v) {
        return edit(d, [v](objects::Cloud& x) { x.spacing = v; });
    });
    if (!cloud.filter.inside.empty())
        check(tr("Cropped by a line"), true, [edit](const Document& d, bool on) {
            return edit(d, [on](objects::Cloud& x) {
                if (!on) x.filter.inside.clear();
            });
        });
    heading(tr("Classes that take part"));
    if (cloud.classified) fact(tr("Classes"), tr("changed here, not those of the file"));
    const auto counts = c.classCounts();
    std::vector<std::uint8_t> there;
    for (std::size_t k = 0; k < counts.size(); ++k)
        if (counts[k] > 0) there.push_back(static_cast<std::uint8_t>(k));
    for (const std::uint8_t k : there) {
        const bool on = cloud.filter.classes.empty() ||
                        std::find(cloud.filter.classes.begin(), cloud.filter.classes.end(), k) !=
                            cloud.filter.classes.end();
        check(QStringLiteral("%1  %2   %3").arg(k).arg(className(k)).arg(counts[k]), on,
              [edit, k, there](const Document& d, bool state) {
                  return edit(d, [&](objects::Cloud& x) {
                      if (x.filter.classes.empty()) x.filter.classes = there;
                      std::erase(x.filter.classes, k);
                      if (state) x.filter.classes.push_back(k);
                      std::sort(x.filter.classes.begin(), x.filter.classes.end());
                      if (x.filter.classes == there) x.filter.classes.clear();
                  });
              });
    }
    objectChoice<objects::Group>(
        tr("Group"), document.find(id)->group,
        [id](const Document& d, ObjectId g) { return operations::setGroup(d, id, g); }, tr("none"));
}

void Facts::raster(ObjectId id) {
    const auto& document = session_.document();
    const auto& r = *document.get<objects::HeightRaster>(id);
    heading(text(document.nameOf(id)));
    fact(tr("File"), QFileInfo(text(r.file)).fileName());
    if (!r.problem.empty()) fact(tr("Problem"), text(r.problem));
    if (!r.raster) return;
    fact(tr("Cells"), tr("%1 × %2").arg(r.raster->columns).arg(r.raster->rows));
    fact(tr("Cell"), text(formatExact(r.raster->cell())));
    fact(tr("With height"),
         QString::number(std::count(r.raster->present.begin(), r.raster->present.end(), true)));
}

void Facts::backdrop(ObjectId id) {
    const auto& document = session_.document();
    const auto& b = *document.get<objects::Backdrop>(id);
    heading(text(document.nameOf(id)));
    fact(tr("File"), QFileInfo(text(b.file)).fileName());
    if (!b.problem.empty()) fact(tr("Problem"), text(b.problem));
    if (b.picture) fact(tr("Shown with"), tr("%1 × %2 pixels").arg(b.picture->columns).arg(b.picture->rows));
    check(tr("Shown"), b.visible, [id](const Document& d, bool on) {
        return document::changed<objects::Backdrop>(d, id, [on](objects::Backdrop& x) { x.visible = on; });
    });
}

}  // namespace erdwerk::app
