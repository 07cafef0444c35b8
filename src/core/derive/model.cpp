#include "core/derive/model.h"

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

struct Model::State {
    Memory memory;
    std::size_t computed = 0;
};

Evaluation::Evaluation(Memory& memory, const Document& of, const Context& with)
    : document(of), context(with), heights_(surroundings(), asked), memory_(memory) {
    out.document = of;
    readNames();
}

Result<Derived> Evaluation::run() {
    // Surfaces before lines: a circle between them is then told at the line.
    for (const ObjectId id : document.all<Surface>()) surface(id);
    for (const auto& [id, object] : document.objects())
        visit<void>(object->payload, [&, of = id](const auto& payload) { work(*this, of, payload); });
    if (cancelled_ || context.isCancelled()) return erdwerk::cancelled();
    forgetWhatIsGone();
    return std::move(out);
}

void Evaluation::forgetWhatIsGone() {
    // What went or came shows in the count or in the next id; what stays by chance is harmless.
    const auto& objects = document.objects();
    std::string now = std::to_string(objects.size()) + " " + std::to_string(document.nextId());
    Memo& memo = memory_[{"objects", ObjectId{}}];
    if (memo.parameters == now) return;
    memo.parameters = std::move(now);
    std::erase_if(memory_, [&](const auto& entry) {
        const ObjectId of = entry.first.second;
        return of && objects.find(of) == objects.end();
    });
}

Model::Model() : state_(std::make_unique<State>()) {}
Model::~Model() = default;
Model::Model(Model&&) noexcept = default;
Model& Model::operator=(Model&&) noexcept = default;

Result<Derived> Model::evaluate(const Document& document, const Context& context) {
    Evaluation evaluation(state_->memory, document, context);
    auto derived = evaluation.run();
    state_->computed = evaluation.computed();
    return derived;
}

std::size_t Model::computedLast() const {
    return state_->computed;
}

Result<Derived> evaluate(const Document& document, const Context& context) {
    return Model().evaluate(document, context);
}

}  // namespace erdwerk::derive
