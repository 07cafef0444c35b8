#pragma once
// The rows of the facts panel. A control does its edit on the document that is the newest when it is used.

#include <QFormLayout>
#include <functional>

#include "app/base/session.h"

namespace erdwerk::app {

inline QString text(const std::string& s) {
    return QString::fromStdString(s);
}

/// The value that all of them have; nothing when they differ. Requires at least one.
template <class Things, class ValueOf>
auto commonOf(const Things& things, const ValueOf& valueOf)
    -> std::optional<decltype(valueOf(*things.begin()))> {
    std::optional<decltype(valueOf(*things.begin()))> out = valueOf(*things.begin());
    for (const auto& thing : things)
        if (!(valueOf(thing) == *out)) return std::nullopt;
    return out;
}

/// Rows on one sheet of facts. Copies speak of the same sheet.
class FactsForm {
public:
    using Document = document::Document;
    using Derived = derive::Derived;
    /// What a value that was given does to the document; its reason when it cannot be.
    template <class Value>
    using Change = std::function<Result<document::Edited>(const Document&, Value)>;

    FactsForm(Session& session, QFormLayout& layout) : session_(&session), form_(&layout) {}

    [[nodiscard]] Session& session() const { return *session_; }
    [[nodiscard]] const Document& document() const { return session_->document(); }
    [[nodiscard]] const Derived& derived() const { return session_->derived(); }
    [[nodiscard]] const DisplaySettings& display() const { return document().settings().display; }
    [[nodiscard]] QString nameOf(ObjectId id) const { return QString::fromStdString(document().nameOf(id)); }

    /// The first heading is the title.
    void heading(const QString& text);
    void fact(const QString& name, const QString& value);
    void row(QWidget* widget);
    /// Does an edit; `what`: what the history says of it.
    void button(const QString& text, const QString& help, const QString& what, document::Edit edit);
    /// An editable text; `edit` returns the next document or why the text cannot be read.
    void entry(const QString& name, const QString& value, Change<const QString&> edit);
    /// The same for an edit that reads the text itself.
    void typedEntry(const QString& name, const QString& value,
                    std::function<document::Edit(std::string)> edit);
    /// The same for an edit that may take longer than a frame; an Error for what cannot be read.
    void longEntry(const QString& name, std::function<Result<document::LongEdit>(std::string)> edit);
    void check(const QString& name, bool value, Change<bool> edit);
    void choice(const QString& name, const QStringList& texts, int current, Change<int> edit);
    /// A choice among objects of a kind, with none first.
    template <class T>
    void objectChoice(const QString& name, ObjectId current, Change<ObjectId> edit, const QString& none) {
        objectChoice(name, document().all<T>(), current, std::move(edit), none);
    }
    void objectChoice(const QString& name, const std::vector<ObjectId>& offered, ObjectId current,
                      Change<ObjectId> edit, const QString& none);
    void number(const QString& name, double value, double least, Change<double> edit);
    /// A length in the project's unit, which stands behind it; 0 is written as `none` and typed so too.
    void length(const QString& name, double value, double least, const QString& none, Change<double> edit);
    /// A ratio below 1, written and typed as "1 : 50"; 0 is "off".
    void oneTo(const QString& name, double value, Change<double> edit);
    // The same for several objects at once; nothing stands for values that differ.
    void checkOfMany(const QString& name, std::optional<bool> value,
                     std::function<document::Edit(bool)> edit);
    void choiceOfMany(const QString& name, const QStringList& texts, std::optional<int> current,
                      std::function<document::Edit(int)> edit);
    void entryOfMany(const QString& name, const std::optional<QString>& value,
                     std::function<document::Edit(std::string)> edit);
    // Rows that several kinds have.
    void nameEntry(ObjectId id);
    void groupChoice(ObjectId id);
    void shownCheck(ObjectId id);
    /// Like check, for an edit as it is.
    void editCheck(const QString& name, bool value, std::function<document::Edit(bool)> edit);
    /// Of an object that stays in its file; `problem`: why it could not be read.
    void fileFacts(const std::string& file, const std::string& problem);

    /// What the history says of a setting: "Ground: interval 0.25 m".
    [[nodiscard]] QString said(const QString& name, const QString& value) const;
    /// Does an edit after the panel has let go of the control that asked for it: the edit makes the panel
    /// anew.
    void later(const QString& what, document::Edit edit) const;
    void laterLong(const QString& what, document::LongEdit edit) const;

private:
    Session* session_;
    QFormLayout* form_;
};

}  // namespace erdwerk::app
