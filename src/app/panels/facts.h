#pragma once
// Facts: the figures of the selection, its settings, what depends on it.

#include <QFormLayout>
#include <QScrollArea>
#include <functional>

#include "app/base/session.h"

namespace erdwerk::app {

class Facts : public QScrollArea {
    Q_OBJECT
public:
    explicit Facts(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void project();
    void point(ObjectId set, std::size_t index);
    void points(ObjectId id);
    void line(ObjectId id, std::optional<std::size_t> vertex);
    void surface(ObjectId id);
    void surfaceStyle(ObjectId id);
    void thinning(ObjectId id);
    void fitCheck(ObjectId id);
    void sources(ObjectId id);
    void sourceRow(ObjectId id, const objects::Source& source);
    void addSourceRow(ObjectId id);
    void ownEdits(ObjectId id);
    void cloud(ObjectId id);
    void raster(ObjectId id);
    void backdrop(ObjectId id);
    void alignment(ObjectId id);
    void profile(ObjectId id);
    void parcel(ObjectId id);
    void label(ObjectId id);
    void sheet(ObjectId id);
    void group(ObjectId id);
    void common(ObjectId id);
    void many();

    void heading(const QString& text);
    void fact(const QString& name, const QString& value);
    // Each control has an edit of the document that is the newest when it is used.
    using Document = document::Document;
    /// An editable text; `edit` returns the next document or why the text cannot be read.
    void entry(const QString& name, const QString& value,
               std::function<Result<Document>(const Document&, const QString&)> edit);
    /// The same for an edit that reads the text itself.
    void typedEntry(const QString& name, const QString& value,
                    std::function<document::Edit(std::string)> edit);
    void check(const QString& name, bool value, std::function<Document(const Document&, bool)> edit);
    void choice(const QString& name, const QStringList& texts, int current,
                std::function<Document(const Document&, int)> edit);
    /// A choice among objects, with none first.
    template <class T>
    void objectChoice(const QString& name, ObjectId current,
                      std::function<Document(const Document&, ObjectId)> edit, const QString& none);
    void number(const QString& name, double value, double least,
                std::function<Document(const Document&, double)> edit);

    /// Does an edit after the panel has let go of the control that asked for it: the edit makes the panel
    /// anew.
    void later(const QString& what, document::Edit edit);

    Session& session_;
    QFormLayout* form_ = nullptr;
};

template <class T>
void Facts::objectChoice(const QString& name, ObjectId current,
                         std::function<Document(const Document&, ObjectId)> edit, const QString& none) {
    QStringList texts{none};
    std::vector<ObjectId> ids{ObjectId{}};
    int at = 0;
    for (const ObjectId id : session_.document().all<T>()) {
        if (id == current) at = static_cast<int>(ids.size());
        texts << QString::fromStdString(session_.document().nameOf(id));
        ids.push_back(id);
    }
    choice(name, texts, at, [ids, edit = std::move(edit)](const Document& d, int i) {
        return edit(d, ids[static_cast<std::size_t>(i)]);
    });
}

}  // namespace erdwerk::app
