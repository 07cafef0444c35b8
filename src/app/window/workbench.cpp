
#include <QFileInfo>
#include <QMessageBox>
#include <QStackedWidget>
#include <set>

#include "app/bench/bench.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_view.h"
#include "app/sheet/sheet_canvas.h"
#include "app/sheet/sheet_page.h"
#include "app/window/prompt_line.h"
#include "app/window/workbench.h"
#include "core/derive/derived.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/objects/sheet.h"

namespace erdwerk::app {

Workbench::Workbench(QWidget* w) : window(w) {
    connect(&actions, &ActionList::refused, this, [this](const QString& reason) { say(reason, true); });
    connect(&session, &Session::message, this, &Workbench::say);
    connect(&session, &Session::opened, this, &Workbench::fitWhenShown);
    connect(&session, &Session::resultsChanged, this, [this] {
        if (fitPending_ && plan->width() > 100) {
            fitPending_ = false;
            plan->fit();
        }
    });
}

void Workbench::say(const QString& text, bool isError) {
    prompt->showMessage(text, isError);
}

void Workbench::report(const Result<void>& done, const QString& path) {
    if (!done)
        QMessageBox::warning(window, tr("Not written"), QString::fromStdString(done.error().message()));
    else
        say(path.isEmpty() ? tr("Sent to the printer") : tr("Written to %1").arg(QFileInfo(path).fileName()),
            false);
}

QString Workbench::nameOf(ObjectId id) const {
    return QString::fromStdString(session.document().nameOf(id));
}

QString Workbench::namesOf(const std::vector<ObjectId>& ids) const {
    return ids.size() == 1 ? nameOf(ids.front()) : tr("%1 things").arg(ids.size());
}

std::vector<ObjectId> Workbench::selectedObjects() const {
    std::vector<ObjectId> out;
    for (const Ref& r : session.selection())
        if (std::find(out.begin(), out.end(), r.object) == out.end()) out.push_back(r.object);
    return out;
}

std::vector<ObjectId> Workbench::editAndSelectNew(const QString& what, const document::Edit& edit) {
    auto done = session.edit(what, edit);
    showMade(done.made);
    return done.made;
}

void Workbench::showMade(const std::vector<ObjectId>& made) {
    if (made.empty()) return;
    const auto& d = session.document();
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
    session.selection().set(std::move(refs));
    // On the page that shows it.
    if (d.get<objects::Parcel>(first) != nullptr || d.get<objects::Points>(first) != nullptr)
        bench->open(Bench::Page::Tables);
    else if (d.get<objects::Alignment>(first) != nullptr || d.get<objects::Profile>(first) != nullptr)
        bench->open(Bench::Page::Profile);
    else if (d.get<objects::Line>(first) != nullptr)
        bench->open(Bench::Page::Grades);
}

void Workbench::showObject(ObjectId id) {
    if (session.document().get<objects::Sheet>(id) != nullptr) {
        sheetPage->open(id);
        return showSheets(true);
    }
    showSheets(false);
    geometry::Box box;
    if (const auto object = session.derived().document.find(id))
        kindOf(*object).bounds(session.derived(), id, box);
    if (!box.empty()) plan->fitTo(box.grown(box.width() < 1 ? 10 : 0));
}

void Workbench::showSelected() {
    geometry::Box box;
    for (const ObjectId id : selectedObjects())
        if (const auto object = session.derived().document.find(id))
            kindOf(*object).bounds(session.derived(), id, box);
    if (!box.empty()) plan->fitTo(box.grown(std::max(box.width(), box.height()) < 1 ? 10 : 0));
}

void Workbench::showSheets(bool shown) {
    if (!shown && middle->currentIndex() == 0) return;
    middle->setCurrentIndex(shown ? 1 : 0);
    prompt->setIdle(shown ? tr("Click a frame, drag it or its edges; facts take millimetres. Esc leads back.")
                          : QString());
    if (shown)
        sheetPage->canvas()->setFocus();
    else
        plan->setFocus();
}

/// Esc over a sheet: what is dragged, then the frame, then the sheet is let go.
bool Workbench::leaveSheet() {
    if (!sheetPage->isVisible()) return false;
    if (sheetPage->canvas()->endDrag()) return true;
    if (sheetPage->canvas()->selectedFrame())
        session.selection().set({{sheetPage->sheet(), std::nullopt}});
    else
        showSheets(false);
    return true;
}

ObjectId Workbench::sheetInHand() const {
    const auto sheets = session.document().all<objects::Sheet>();
    if (const auto selected = session.selected<objects::Sheet>()) return *selected;
    if (sheetPage->isVisible()) return sheetPage->sheet();
    return sheets.size() == 1 ? sheets.front() : ObjectId{};
}

}  // namespace erdwerk::app

#include "moc_workbench.cpp"
