global using Fobble.Core;
