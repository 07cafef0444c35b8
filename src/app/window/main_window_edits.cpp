// What the actions of points, lines, surfaces and sheets do.

#include <QInputDialog>
#include <QMessageBox>
#include <set>

#include "app/base/file_dialog.h"
#include "app/window/main_window.h"
#include "core/objects/points.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "core/operations/sheets.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app {

using document::Document;

std::vector<std::size_t> MainWindow::selectedPoints(ObjectId& set) const {
    std::vector<std::size_t> out;
    for (const Ref& r : session_.selection()) {
        if (session_.document().get<objects::Points>(r.object) == nullptr || (set && set != r.object))
            continue;
        set = r.object;
        if (r.part) {
            out.push_back(*r.part);
        } else {
            for (std::size_t i = 0; i < session_.document().get<objects::Points>(set)->set.size(); ++i)
                out.push_back(i);
        }
    }
    return out;
}

std::vector<ObjectId> MainWindow::editAndSelectNew(const QString& what, const document::Edit& edit) {
    auto done = session_.edit(what, edit);
    showMade(done.made);
    return done.made;
}

void MainWindow::showMade(const std::vector<ObjectId>& made) {
    if (made.empty()) return;
    const auto& d = session_.document();
    // The boundary that was made for a parcel is not what was wanted.
    std::set<ObjectId> forAnother;
    for (const ObjectId id : made)
        for (const ObjectId named : objects::references(d.find(id)->payload))
            if (const auto object = d.find(named);
                object && object->payload.index() != d.find(id)->payload.index())
                forAnother.insert(named);
    std::vector<Ref> refs;
    for (const ObjectId id : made)
        if (forAnother.count(id) == 0) refs.push_back({id, std::nullopt});
    const ObjectId first = refs.empty() ? made.front() : refs.front().object;
    session_.select(std::move(refs));
    // On the page that shows it.
    if (d.get<objects::Parcel>(first) != nullptr || d.get<objects::Points>(first) != nullptr)
        bench_->open(Bench::Page::Tables);
    else if (d.get<objects::Alignment>(first) != nullptr || d.get<objects::Profile>(first) != nullptr)
        bench_->open(Bench::Page::Profile);
    else if (d.get<objects::Line>(first) != nullptr)
        bench_->open(Bench::Page::Grades);
}

void MainWindow::connectPoints(bool byCode) {
    ObjectId set;
    auto members = selectedPoints(set);
    editAndSelectNew(tr("Connect points"), operations::connectPoints(set, std::move(members), byCode));
}

void MainWindow::newSurface() {
    std::vector<ObjectId> chosen;
    for (const Ref& r : session_.selection()) chosen.push_back(r.object);
    editAndSelectNew(tr("New surface"), operations::newSurface(std::move(chosen)));
}

void MainWindow::deleteSelection() {
    // A PI goes by itself, not with its alignment.
    if (const auto& chosen = session_.selection();
        chosen.size() == 1 && chosen.front().part &&
        operations::pisOf(session_.document(), chosen.front().object) != nullptr) {
        const Ref pi = chosen.front();
        if (session_.edit(tr("Remove PI %1").arg(*pi.part + 1), operations::removePi(pi.object, *pi.part)))
            session_.select({{pi.object, std::nullopt}});
        return;
    }
    // A frame, not its sheet.
    if (const auto& chosen = session_.selection(); chosen.size() == 1 && chosen.front().part)
        if (const auto* sheet = session_.document().get<objects::Sheet>(chosen.front().object);
            sheet != nullptr) {
            // One that was taken back meanwhile is nothing to delete, nor is its sheet.
            if (*chosen.front().part >= sheet->frames.size())
                return session_.select({{chosen.front().object, std::nullopt}});
            const Ref frame = chosen.front();
            const auto name = QString::fromStdString(operations::frameName(*sheet, *frame.part));
            session_.select({{frame.object, std::nullopt}});
            session_.edit(tr("Remove %1").arg(name), operations::removeFrame(frame.object, *frame.part));
            return;
        }
    std::vector<ObjectId> objects;
    std::vector<objects::PointRef> points;
    for (const Ref& r : session_.selection()) {
        if (session_.document().get<objects::Points>(r.object) != nullptr && r.part)
            points.push_back({r.object, *r.part});
        else
            objects.push_back(r.object);
    }
    if (objects.empty() && points.empty()) return;
    const QString what = objects.size() + points.size() == 1
                             ? tr("Delete %1").arg(points.empty() ? nameOf(objects.front()) : tr("a point"))
                             : tr("Delete %1 things").arg(objects.size() + points.size());
    // What stands where the deleted thing stood is something else.
    if (session_.edit(what, operations::remove(std::move(objects), std::move(points)))) session_.select({});
}

QString MainWindow::nameOf(ObjectId id) const {
    return QString::fromStdString(session_.document().nameOf(id));
}

}  // namespace erdwerk::app
