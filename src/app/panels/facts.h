#pragma once
// Facts: the figures of the selection, its settings, what depends on it.

#include <QFormLayout>
#include <QScrollArea>
#include <functional>

#include "app/shell/session.h"

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
    void sources(ObjectId id);
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
    /// An editable text; `edit` returns the next document or why the text cannot be read.
    void entry(const QString& name, const QString& value,
               std::function<Result<document::Document>(const QString&)> edit);
    void check(const QString& name, bool value, std::function<document::Document(bool)> edit);
    void choice(const QString& name, const QStringList& texts, int current,
                std::function<document::Document(int)> edit);
    /// A choice among objects, with none first.
    template <class T>
    void objectChoice(const QString& name, ObjectId current, std::function<document::Document(ObjectId)> edit,
                      const QString& none);
    void number(const QString& name, double value, double least,
                std::function<document::Document(double)> edit);

    Session& session_;
    QFormLayout* form_ = nullptr;
};

}  // namespace erdwerk::app
